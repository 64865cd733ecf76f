// @vitest-environment node
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import conventions from '../../../core/ask/testdata/conventions.json'
import takes from '../../../core/ask/testdata/judged.json'
import { Ear } from './core'

const file = new URL('../../public/ear.wasm', import.meta.url)
const rate = 48_000

/*
 * What the core in the browser answers of a take is what the core on the server answers, to the
 * last bit: core/ask/judged_test.go holds the server to the same file, and writes it.
 */
it('judges as the server does', { timeout: 120_000 }, async () => {
  const wasm = { headers: { 'Content-Type': 'application/wasm' } }
  const ear = await Ear.load(Promise.resolve(new Response(readFileSync(file), wasm)))
  for (const take of takes) {
    const setting = { instrument: take.instrument, stage: 2, conventions }
    const step = { kind: take.kind, parameters: take.parameters }
    const { score } = ear.ask('work', { setting, step, tempo: 0 }) as { score: unknown }
    const { samples } = ear.ask('perform', { score, stand_in: take.stand_in, seed: 1, rate }) as { samples: number }
    const about = { score, start_s: 0, free_start: false, recent_tips: [], tips: {}, air: 'speed', naming: 'english' }
    const answer = ear.answer('judge', { ...about, rate }, ear.sound(samples))
    const { verdict } = JSON.parse(answer) as { verdict: { result: string; sentence: string } }
    expect(`${verdict.result}: ${verdict.sentence}`).toBe(take.said)
    expect(createHash('sha256').update(answer).digest('hex'), take.said).toBe(take.answer_sha256)
  }
})
