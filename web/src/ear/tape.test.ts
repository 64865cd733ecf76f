// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { Tape } from './tape'
import { wavOf } from './wav'

describe('a tape', () => {
  it('holds what comes in as its file does, also more than was expected', async () => {
    const tape = new Tape(3)
    expect([...tape.add(Float32Array.of(0.5, -0.25))]).toEqual([0.5, -0.25])
    expect([...tape.add(Float32Array.of(2, -2, 0.1))]).toEqual([32767 / 32768, -1, 3277 / 32768])
    expect(tape.length).toBe(5)
    expect([...tape.samples(3)]).toEqual([0.5, -0.25, 32767 / 32768])
    const file = wavOf([Int16Array.of(16384, -8192, 32767, -32768, 3277)], 8000)
    expect(await tape.file(8000).arrayBuffer()).toEqual(await file.arrayBuffer())
    expect(tape.file(8000), 'made once').toBe(tape.file(8000))
  })
})
