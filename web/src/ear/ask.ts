import type { Schemas } from '../api/client'
import type { Heard } from '../device/outbox'
import { ask } from './listener'

/** What the page asks the core, each with its shapes; wasm/ask.go answers. */
export type Setting = Schemas['Setting']
export type Worked = Pick<Schemas['PracticeStep'], 'score' | 'timeline' | 'ear' | 'tempi'>
export type Score = Schemas['Score']

export type Sound = { samples: Float32Array<ArrayBuffer>; rate: number }

type Judged = {
  score: Score
  start_s: number
  free_start: boolean
  recent_tips: string[]
  tips: Schemas['Practice']['tips']
  air: string
}

/** judge listens to a whole take; the samples are given away. */
export async function judge(about: Judged, sound: Sound): Promise<Heard> {
  return (await ask('judge', { ...about, rate: sound.rate }, sound.samples)).answer as Heard
}

const rehearsalSeconds = 2

/** rehearse lets the core judge a buzz once, so that the first take's word comes as soon as the others'. */
export async function rehearse(score: Score, rate: number): Promise<void> {
  const samples = Float32Array.from({ length: rehearsalSeconds * rate }, (_, n) => 0.4 * (((220 * n) / rate) % 1) - 0.2)
  await judge({ score, start_s: 0, free_start: false, recent_tips: [], tips: {}, air: '' }, { samples, rate })
}

/** work works a step out for a player at a tempo; 0 is the step's own. */
export async function work(setting: Setting, step: Schemas['AskedStep'], tempo: number): Promise<Worked> {
  return (await ask('work', { setting, step, tempo })).answer as Worked
}

export type LadderEntry = {
  what: 'tried' | 'stepped-back'
  day: string
  rung: number
  result?: string
  hard?: boolean
  seconds?: number
}

/** climb leads a ladder on after a take or a step back. */
export async function climb(
  setting: Setting,
  ladder: Schemas['Ladder'],
  entry: LadderEntry,
): Promise<Schemas['Ladder']> {
  return (await ask('climb', { setting, ladder, entry })).answer as Schemas['Ladder']
}

export type Doing = { kind: string; load: Schemas['Load']; ago_s: number }
export type Hold = { hold_s: number; over: boolean; why: string }

/** holdBefore says how long to rest before a step. */
export async function holdBefore(next: Score, today: Doing[]): Promise<Hold> {
  return (await ask('before', { next, today })).answer as Hold
}

/** perform lets a simulated player play a score. */
export async function perform(score: Score, standIn: string, seed: number, rate: number): Promise<Sound> {
  const { sound } = await ask('perform', { score, stand_in: standIn, seed, rate })
  return { samples: sound as Float32Array<ArrayBuffer>, rate }
}

/** reference sounds a score as it should be. */
export async function reference(score: Score, rate: number): Promise<Sound> {
  const { sound } = await ask('reference', { score, rate })
  return { samples: sound as Float32Array<ArrayBuffer>, rate }
}

export type MicrophoneCheck = {
  good: boolean
  room_db: number
  note_db: number
  above_db: number
  clipped: boolean
  riding: boolean
  heard: boolean
  says: string[]
}

/** checkMicrophone listens to a few seconds of quiet, a note, and quiet. */
export async function checkMicrophone(sound: Sound): Promise<MicrophoneCheck> {
  return (await ask('check', { rate: sound.rate }, sound.samples)).answer as MicrophoneCheck
}
