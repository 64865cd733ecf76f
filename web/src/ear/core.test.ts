// @vitest-environment node
import { existsSync, readFileSync } from 'node:fs'
import { describe, expect, it, vi } from 'vitest'
import questions from '../../../core/ask/questions.json'
import type { Answer, Question, Request } from './ask'
import { Ear, Refused } from './core'
import { Keeper } from './keeper'
import type { FromEar, ToEar } from './messages'

// Everything here runs in the core as it is built for the browser.
const file = new URL('../../public/ear.wasm', import.meta.url)
const fetchEar = async () => new Response(readFileSync(file), { headers: { 'Content-Type': 'application/wasm' } })

const rate = 48_000

function tone(hz: number, seconds: number) {
  return Float32Array.from(
    { length: seconds * rate },
    (_, n) => 0.3 * Math.sin((2 * Math.PI * hz * n) / rate) + 0.1 * Math.sin((4 * Math.PI * hz * n) / rate),
  )
}

const setting: Request<'work'>['setting'] = {
  instrument: 'clarinet',
  stage: 2,
  conventions: {
    a4_hz: 440,
    naming: 'english',
    begin: 'low',
    long_tone: 'counted',
    long_tempo: '80',
    tuner: 'shown',
    buzz_on: 'mouthpiece',
    buzz_move: 'slide',
    start: 'tongued',
    end: 'taper',
    air: 'speed',
    euphonium_c: '1-3',
    clarinet_chromatic: 'side',
    clarinet_low: 'alternate',
    sing_first: 'sing',
    tuning_note: 'Bb',
    hard_notes: 'tried',
    tempo_give: 20,
    long_beats: 8,
  },
}

const longTone = { kind: 'long-tone-counted', parameters: { notes: [0], beats: 4, tempo_bpm: 80 } }
const rung = { kind: 'ladder', parameters: { ladder: 'clarinet-break', rung: 1, tempo_bpm: 60 } }

/** asker puts questions to one ear, typed as the page's are. */
async function asker() {
  const ear = await Ear.load(fetchEar())
  const asked = new Set<string>()
  const ask = <Q extends Question>(name: Q, request: Request<Q>, samples?: Float32Array) => {
    asked.add(name)
    return ear.ask(name, request, samples) as Answer<Q>
  }
  return { ear, ask, asked }
}

it('is built', () => expect(existsSync(file)).toBe(true))

it('hears live', async () => {
  const ear = await Ear.load(fetchEar())
  ear.open({ lowest: 100, highest: 1000 }, rate)
  ear.aim(58, 440) // B flat below middle C, 233.08 Hz
  const sound = tone(235, 1)
  const heard = []
  for (let at = 0; at < sound.length; at += 512) heard.push(...ear.hear(sound.subarray(at, at + 512)))
  expect(heard.length).toBeGreaterThan(95)
  expect(heard[60]?.pitch).toBeCloseTo(235, 1)
  expect(heard[60]?.cents).toBeCloseTo(1200 * Math.log2(235 / 233.082), 1)
  expect(() => ear.open({ lowest: 100, highest: 1000 }, 8000)).toThrow(Refused)
})

it('answers every question there is', async () => {
  const { ear, ask, asked } = await asker()
  const { score, timeline } = ask('work', { setting, step: longTone, tempo: 0 })
  expect(score.segments.filter((s) => s.sounds).map((s) => s.written_name)).toEqual(['C4'])
  expect(timeline.cues.some((c) => c.active)).toBe(true)

  const { samples } = ask('reference', { score, rate })
  expect(samples / rate).toBeCloseTo(timeline.total_s, 0)
  const steady = ask('perform', { score, stand_in: 'steady', seed: 7, rate })
  const played = ear.sound(steady.samples)
  expect(played.some((v) => Math.abs(v) > 0.05)).toBe(true)

  expect(ask('rehearse', { score, rate })).toEqual({})
  const about = { score, start_s: 0, free_start: false, recent_tips: [], tips: {}, air: 'speed', naming: 'english' }
  const heard = ask('judge', { ...about, rate, best: 'nearly' }, played)
  expect(heard.verdict.result).toBe('clean')
  expect(heard.best).toBe('clean')
  expect(heard.longest_s).toBe(0)
  expect(heard.small.tracks).toBeDefined()

  ask('take', { score, start_s: 0, rate })
  ear.open({ lowest: 100, highest: 1000 }, rate)
  for (let at = 0; at < played.length; at += 4800) ear.hear(played.subarray(at, at + 4800))
  ear.ahead()
  expect(ask('judge', { ...about, rate, taken: true })).toEqual({ ...heard, best: heard.verdict.result })
  expect(() => ask('judge', { ...about, rate, taken: true })).toThrow(/no take came in/)

  const step = ask('work', { setting, step: rung, tempo: 0 })
  const ladder = { ...emptyLadder, rungs: ['one', 'two'], passed: [false, false] }
  const climbed = ask('climb', { setting, ladder, day: '2026-11-27', rung: 1, verdict: heard.verdict, seconds: 9 })
  expect(climbed.clean).toBe(1)
  expect(climbed.tries_today).toBe(1)
  expect(ask('step-back', { setting, ladder: climbed, day: '2026-11-27' }).clean).toBe(0)

  const today = [{ kind: step.score.kind, load: { ...step.score.load, sound_s: 20 }, ago_s: 5 }]
  expect(ask('hold', { next: step.score, today })).toMatchObject({ hold_s: 15, over: false })

  const alone = ask('part', { score, part: { notes: [0] } })
  expect(alone.task.sentence).toBe('Hold C for 4 beats.')

  const chart = ask('chart', { instrument: 'clarinet', variant: '', conventions: setting.conventions })
  expect(chart.notes.find((n) => n.written_name === 'C4')?.ways.map((w) => w.text)).toEqual(['T 123'])

  const clarinet = { instrument: 'clarinet', variant: '', conventions: setting.conventions }
  expect(ask('which', { ...clarinet, pitch_hz: 233, asked_midi: 60 })).toMatchObject({ called: 'low C', right: false })
  expect(ask('note', { ...clarinet, midi: 58, rate }).samples / rate).toBeCloseTo(2.25, 1)

  const metered = ask('work', { setting, step: { kind: 'air-meter', parameters: {} }, tempo: 0 })
  const blowing = { score: metered.score, stand_in: 'prompt', seed: 7, tips: {}, conventions: setting.conventions }
  expect(ask('blow', blowing).verdict.result).toBe('clean')

  const quiet = new Float32Array(2 * rate)
  const check = new Float32Array(7 * rate)
  check.set(quiet)
  check.set(tone(233, 3), 2 * rate)
  expect(ask('check', { rate }, check).heard).toBe(true)

  const names = Object.keys(questions.paths).map((path) => path.slice(1))
  expect([...asked].sort()).toEqual(names.sort())
  expect(() => ear.ask('colour', {})).toThrow(/no question "colour"/)
})

const emptyLadder: Request<'climb'>['ladder'] = {
  key: 'clarinet-break',
  name: 'Over the break',
  rungs: [],
  rung: 1,
  passed: [],
  clean: 0,
  needs: 3,
  reached: false,
  capped: false,
  tries_today: 0,
  most_tries: 12,
  state: {
    rung: 1,
    clean: 0,
    fails: 0,
    tries: 0,
    passed: [false, false, false, false, false, false, false, false, false, false, false],
    backs: 0,
    slipped: false,
    reached: false,
    day_tries: 0,
    day_s: 0,
  },
}

describe('what a newer server asks of an older ear', () => {
  it('is refused by name, and the next take is judged', async () => {
    const { ear, ask } = await asker()
    const { score } = ask('work', { setting, step: longTone, tempo: 0 })
    const played = ear.sound(ask('perform', { score, stand_in: 'steady', seed: 1, rate }).samples)
    const about = { start_s: 0, free_start: false, recent_tips: [], tips: {}, air: 'speed', naming: 'english', rate }
    const newer = { ...score, rules: [...score.rules, { measure: 'warmth-of-heart', limit: 1 }] }
    expect(() => ask('judge', { ...about, score: newer }, played.slice())).toThrow(/warmth-of-heart/)
    expect(ask('judge', { ...about, score }, played).verdict.result).toBe('clean')
  })
})

describe('the keeper of the ear', () => {
  it('makes a fresh ear after a trap, and goes on listening', async () => {
    vi.spyOn(console, 'error').mockImplementation(() => {}) // the runtime's last words
    const told: FromEar[] = []
    const keeper = new Keeper(fetchEar, (m) => told.push(m))
    const put = async (m: ToEar) => {
      await keeper.take(m)
      return told.at(-1)
    }
    const ask = (id: number, name: string, request: unknown) => put({ kind: 'ask', id, name, request })
    const worked = await ask(1, 'work', { setting, step: longTone, tempo: 0 })
    const score = worked?.kind === 'answer' ? (JSON.parse(worked.answer) as Answer<'work'>).score : undefined
    await put({ kind: 'open', range: { lowest: 100, highest: 1000 }, rate })
    await put({ kind: 'aim', midi: 58, a4: 440 })

    // Sound of a length that cannot be: the core stops in the middle, and cannot be asked again.
    const impossible = { length: -1 } as unknown as Float32Array
    const trapped = await put({ kind: 'ask', id: 2, name: 'check', request: { rate }, samples: impossible })
    expect(trapped).toMatchObject({ kind: 'failed', id: 2 })
    expect(told).toContainEqual(expect.objectContaining({ kind: 'trapped', times: 1 }))

    const live = await put({ kind: 'hear', samples: tone(235, 1) })
    const moments = live?.kind === 'live' ? live.moments : []
    expect(moments.at(60)?.pitch).toBeCloseTo(235, 1)
    expect(moments.at(60)?.cents).toBeCloseTo(14.2, 0)
    expect(await ask(3, 'perform', { score, stand_in: 'steady', seed: 1, rate })).toMatchObject({ kind: 'answer' })
    expect(await ask(4, 'colour', {})).toMatchObject({ kind: 'failed', id: 4 })
    expect(told.filter((m) => m.kind === 'trapped')).toHaveLength(1)
  })

  it('judges the take that came in, and says so where that is not the one it is asked about', async () => {
    const told: FromEar[] = []
    const keeper = new Keeper(fetchEar, (m) => told.push(m))
    const answer = async (m: ToEar) => {
      await keeper.take(m)
      const last = told.at(-1)
      return last?.kind === 'answer' ? last : undefined
    }
    const judged = async (request: object, number: number, samples: number) =>
      (await ask('judge', { ...request, rate }, { take: { number, samples } }))?.answer
    const ask = (name: string, request: unknown, more: object = {}) =>
      answer({ kind: 'ask', id: 1, name, request, ...more })
    const worked = (await ask('work', { setting, step: longTone, tempo: 0 }))?.answer ?? ''
    const { score } = JSON.parse(worked) as Answer<'work'>
    const played = (await ask('perform', { score, stand_in: 'steady', seed: 3, rate }))?.sound ?? new Float32Array()
    const about = { score, start_s: 0, free_start: false, recent_tips: [], tips: {}, air: 'speed', naming: 'english' }
    const whole = (await ask('judge', { ...about, rate }, { samples: played.slice() }))?.answer

    const hearAll = async (number: number) => {
      await answer({ kind: 'open', range: { lowest: 100, highest: 1000 }, rate })
      await answer({ kind: 'take', number, about: { score, start_s: 0, rate }, length: played.length })
      for (let at = 0; at < played.length; at += 512) {
        await answer({ kind: 'hear', samples: played.slice(at, at + 512) })
      }
    }
    await hearAll(1)
    expect(await judged(about, 1, played.length)).toEqual(whole)
    // Again, of another number, of another length, of another score: it has to be sent whole.
    const notTaken = async (request: object, number: number, samples: number) => {
      expect(await judged(request, number, samples)).toBeUndefined()
      expect(told.at(-1)).toEqual({ kind: 'not-taken', id: 1 })
    }
    await notTaken(about, 1, played.length)
    await hearAll(2)
    await notTaken(about, 1, played.length)
    await notTaken(about, 2, played.length - 1)
    await hearAll(3)
    await notTaken({ ...about, score: { ...score, rung: 9 } }, 3, played.length)
    expect((await ask('judge', { ...about, rate }, { samples: played.slice() }))?.answer).toEqual(whole)
    expect(told.filter((m) => m.kind === 'trapped')).toHaveLength(0)
  })
})
