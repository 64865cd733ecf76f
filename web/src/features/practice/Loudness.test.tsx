import { render, screen } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { Course } from './Course'
import { Loudness } from './Loudness'

const note = (start: number, from: string, to = from) => ({
  phase: 'play',
  sounds: true,
  written_name: 'C4',
  start_beat: start,
  beats: 4,
  text: '',
  dynamic: from,
  dynamic_to: to,
})
const swell = {
  segments: [note(0, 'pp'), note(4, 'pp', 'ff'), note(8, 'ff'), note(12, 'ff', 'pp')],
} as unknown as Schemas['Score']

describe('how loud', () => {
  it('is told and drawn before it is played', () => {
    render(
      <>
        <Course score={swell} />
        <Loudness score={swell} />
      </>,
    )
    expect(screen.getByText(/C4 4, very soft/)).toBeTruthy()
    expect(screen.getByText(/C4 4, growing/)).toBeTruthy()
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
      'How loud: 4 beats very soft, 4 beats growing, 4 beats very loud, 4 beats fading',
    )
  })

  it('is no drawing where it stays the same', () => {
    render(<Loudness score={{ segments: [note(0, 'mf'), note(4, 'mf')] } as unknown as Schemas['Score']} />)
    expect(screen.queryByRole('img')).toBeNull()
  })

  it('says how a note ends and how its air moves', () => {
    const score = {
      segments: [
        { ...note(0, 'mf'), dynamic: undefined, dynamic_to: undefined, ending: 'taper' },
        { ...note(4, 'mf'), dynamic: undefined, dynamic_to: undefined, pulses: 2 },
        { ...note(8, 'mf'), dynamic: undefined, dynamic_to: undefined, mark: 'accent' },
      ],
    } as unknown as Schemas['Score']
    render(<Course score={score} />)
    expect(screen.getByText(/the end fades by itself/)).toBeTruthy()
    expect(screen.getByText(/2 pulses a beat/)).toBeTruthy()
    expect(screen.getByText(/with an accent/)).toBeTruthy()
  })
})
