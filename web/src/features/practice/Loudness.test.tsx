import { render, screen } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
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
    render(<Loudness score={swell} />)
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
      'How loud: 4 beats very soft, 4 beats growing, 4 beats very loud, 4 beats fading',
    )
  })

  it('is no drawing where it stays the same', () => {
    render(<Loudness score={{ segments: [note(0, 'mf'), note(4, 'mf')] } as unknown as Schemas['Score']} />)
    expect(screen.queryByRole('img')).toBeNull()
  })
})
