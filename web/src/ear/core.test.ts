// @vitest-environment node
import { existsSync, readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { Ear } from './core'

const file = new URL('../../public/ear.wasm', import.meta.url)

function tone(hz: number, seconds: number, rate: number) {
  return Float32Array.from(
    { length: seconds * rate },
    (_, n) => 0.3 * Math.sin((2 * Math.PI * hz * n) / rate) + 0.1 * Math.sin((4 * Math.PI * hz * n) / rate),
  )
}

function load() {
  return Ear.load(new Response(readFileSync(file), { headers: { 'Content-Type': 'application/wasm' } }))
}

it('is built', () => expect(existsSync(file)).toBe(true))

it('hears a whole take', async () => {
  const ear = await load()
  ear.aim(57, 440) // A3
  const heard = ear.track(tone(218, 1, 48000), { lowest: 100, highest: 1000 }, 48000)
  const middle = heard[50]
  expect(middle?.pitch).toBeCloseTo(218, 1)
  expect(middle?.cents).toBeCloseTo(1200 * Math.log2(218 / 220), 1)
})

it('hears live what it hears in the whole', async () => {
  const ear = await load()
  ear.open({ lowest: 100, highest: 1000 }, 48000)
  const sound = tone(233.08, 1, 48000)
  const heard = []
  for (let at = 0; at < sound.length; at += 512) heard.push(...ear.hear(sound.subarray(at, at + 512)))
  expect(heard.length).toBeGreaterThan(95)
  expect(heard[60]?.pitch).toBeCloseTo(233.08, 1)
  expect(() => ear.open({ lowest: 100, highest: 1000 }, 8000)).toThrow('8000')
})
