import { act, render, screen } from '@testing-library/react'
import { expect, it, vi } from 'vitest'
import type { Recorded, Recording } from '../../ear/recorder'
import { everyFrame, useLive } from './useLive'

const frame = () => act(() => new Promise((done) => requestAnimationFrame(() => done(undefined))))

let at = 0
let drawn = 0
let end = () => {}
const recording = { position: () => at, done: new Promise((done) => (end = () => done({} as Recorded))) } as Recording

function Second() {
  drawn++
  return <p>{useLive(recording, (r) => Math.floor(r.position()))}</p>
}

it('draws again only when what is read has changed', async () => {
  render(<Second />)
  await frame()
  const before = drawn
  for (at of [0.2, 0.5, 0.9]) await frame()
  expect(drawn).toBe(before)
  at = 1.1
  await frame()
  await frame()
  expect(screen.getByText('1')).toBeTruthy()
})

it('asks the browser for one frame, however much is moved in it', () => {
  const asked: FrameRequestCallback[] = []
  const frames = vi.spyOn(window, 'requestAnimationFrame').mockImplementation((look) => asked.push(look))
  const another = { ...recording, done: new Promise(() => {}) } as Recording
  const moved: string[] = []
  const stops = ['a', 'b', 'c'].map((part) => everyFrame(another, () => moved.push(part)))
  expect(asked).toHaveLength(1)
  asked[0]?.(0)
  stops[1]?.()
  asked[1]?.(0)
  expect(asked).toHaveLength(3)
  expect(moved.join('')).toBe('abcac')
  frames.mockRestore()
})

it('stands still when the last beat is over: the word comes next', async () => {
  at = 1.1
  render(<Second />)
  end()
  await frame()
  const before = drawn
  at = 2.1
  await frame()
  await frame()
  expect(drawn).toBe(before)
})
