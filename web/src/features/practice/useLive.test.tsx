import { act, render, screen } from '@testing-library/react'
import { expect, it } from 'vitest'
import type { Recorded, Recording } from '../../ear/recorder'
import { useLive } from './useLive'

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
