import type { components, paths } from './ask.gen'
import { NotTaken, put } from './listener'
import type { TakeAsked } from './messages'

/** What the page asks of the core. Names and shapes are written from core/ask's Go types. */
type Paths = keyof paths
/** The names of the questions, as the core has them. */
export type Question = { [P in Paths]: P extends `/${infer Name}` ? Name : never }[Paths]
/** A question is described as if it were posted to an address of its name. */
type Posted<Q extends Question> = paths[`/${Q}`]['post']
/** What a question is asked with. */
export type Request<Q extends Question> = Posted<Q>['requestBody']['content']['application/json']
/** What it is answered with. */
export type Answer<Q extends Question> = Posted<Q>['responses'][200]['content']['application/json']

/** The Go types by name. */
type Shapes = components['schemas']
/** A player as the device knows one. */
export type Setting = Shapes['Setting']
/** What a step asks of one instrument. */
export type Score = Shapes['Score']
/** The word on a take, and its drawings. */
export type Heard = Answer<'judge'>
/** A rest before a step. */
export type Hold = Answer<'hold'>
/** A take of today, as the body remembers it. */
export type Played = Shapes['Played']
/** What a check of the microphone found. */
export type MicrophoneCheck = Answer<'check'>
/** An instrument's book of fingerings. */
export type Chart = Answer<'chart'>
/** A ladder as its player sees it. */
export type Ladder = Answer<'climb'>

/** Sound in memory: samples from -1 to 1, and how many a second. */
export type Sound = { samples: Float32Array<ArrayBuffer>; rate: number }

/**
 * TakeHeard is a take that the core listened to as it came in, by its number. samples are
 * made only where the core has to listen to it whole.
 */
export type TakeHeard = {
  take: number
  length: number
  rate: number
  samples: () => Float32Array<ArrayBuffer>
}

/**
 * ask is typed by the question's name. The one cast is here: the core wrote the answer
 * of that very type.
 */
async function ask<Q extends Question>(
  name: Q,
  request: Request<Q>,
  about: { samples?: Float32Array; take?: TakeAsked } = {},
): Promise<Answer<Q>> {
  return (await put(name, request, about)).answer as Answer<Q> // the core's own JSON, of that type
}

/** listenTo asks a question whose answer is heard. */
async function listenTo<Q extends 'perform' | 'reference' | 'note'>(name: Q, request: Request<Q>): Promise<Sound> {
  const { sound } = await put(name, request)
  if (!sound) throw new Error('The core sounded nothing.')
  return { samples: sound, rate: request.rate }
}

/** judge judges a sound, which is given away, or a take, listening to what of it was not listened to yet. */
export async function judge(about: Omit<Request<'judge'>, 'rate'>, sound: Sound | TakeHeard): Promise<Heard> {
  const request = { ...about, rate: sound.rate }
  if (!('take' in sound)) return ask('judge', request, { samples: sound.samples })
  try {
    return await ask('judge', request, { take: { number: sound.take, samples: sound.length } })
  } catch (error) {
    if (!(error instanceof NotTaken)) throw error
  }
  return ask('judge', request, { samples: sound.samples() })
}

let rehearsed = false

/**
 * rehearseSoon rehearses once, while the player still reads: an engine compiles well
 * only what has run. Without it the first word only takes longer.
 */
export function rehearseSoon(score: Score, rate: number) {
  if (rehearsed) return
  rehearsed = true
  setTimeout(() => void ask('rehearse', { score, rate }).catch(() => {}), untilShown)
}

/** Milliseconds until the page has been drawn: it needs the processor first. */
const untilShown = 1_000

/** work works a step out for a player at a tempo; 0 is the step's own. */
export function work(setting: Setting, step: Shapes['AskedStep'], tempo: number): Promise<Answer<'work'>> {
  return ask('work', { setting, step, tempo })
}

/** climb leads a ladder on after a take of a rung. */
export function climb(request: Request<'climb'>): Promise<Ladder> {
  return ask('climb', request)
}

/** stepBack leads a ladder back a rung, as its player chose. */
export function stepBack(setting: Setting, ladder: Ladder, day: string): Promise<Ladder> {
  return ask('step-back', { setting, ladder, day })
}

/** holdBefore says how long to rest before a step. */
export function holdBefore(next: Score, today: Played[]): Promise<Hold> {
  return ask('hold', { next, today })
}

/** perform lets a simulated player play a score. */
export function perform(score: Score, standIn: string, seed: number, rate: number): Promise<Sound> {
  return listenTo('perform', { score, stand_in: standIn, seed, rate })
}

/** reference sounds a score as it should be. */
export function reference(score: Score, rate: number): Promise<Sound> {
  return listenTo('reference', { score, rate })
}

/** chart lists every note of an instrument with every way to finger it. */
export function chart(request: Request<'chart'>): Promise<Chart> {
  return ask('chart', request)
}

/** checkMicrophone listens to a few seconds of quiet, a note, and quiet. */
export function checkMicrophone(sound: Sound): Promise<MicrophoneCheck> {
  return ask('check', { rate: sound.rate }, { samples: sound.samples })
}

/** part narrows a step to some of its notes, or to its fingers alone. */
export function part(score: Score, part: Request<'part'>['part']): Promise<Answer<'part'>> {
  return ask('part', { score, part })
}

/** Found is which note a pitch is, to the player of an instrument. */
export type Found = Answer<'which'>

/** which says which note a pitch is; asked is the note that was looked for, 0 for none. */
export function which(of: Request<'chart'>, hertz: number, asked = 0): Promise<Found> {
  return ask('which', { ...of, pitch_hz: hertz, asked_midi: asked })
}

/** oneNote sounds one note of an instrument. */
export function oneNote(of: Request<'chart'>, midi: number, rate: number): Promise<Sound> {
  return listenTo('note', { ...of, midi, rate })
}

/** blow lets a simulated player blow into a simulated air meter. */
export function blow(request: Request<'blow'>): Promise<Answer<'blow'>> {
  return ask('blow', request)
}
