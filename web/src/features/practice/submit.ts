import { newId } from '../../api/ids'
import type { AboutTake, Outbox } from '../../device/outbox'
import { climb, type Heard, judge, type Sound, type TakeHeard } from '../../ear/ask'
import type { ShownStep } from './overlay'
import type { Practice } from './queries'

/** NewTake is a recording on its way: on this device first, then to the server, under a number of its own. */
export type NewTake = {
  id: string
  /** file is made when it is first asked for */
  file: () => Blob
  source: AboutTake['source']
  startMs: number
  /** through is the microphone it came through; of a file nobody knows */
  through?: string
  /** sound is what the core judges here; a chosen file goes without */
  sound?: Sound | TakeHeard
}

/**
 * newTake gives a recording its number here, so that it can be sent again until it is
 * answered.
 */
export function newTake(
  file: NewTake['file'],
  source: AboutTake['source'],
  startMs: number,
  sound?: NewTake['sound'],
): NewTake {
  return { id: newId(), file, source, startMs, ...(sound && { sound }) }
}

/** submit puts a take on the device; from then on it cannot be lost. It rejects when the device has no room. */
export async function submit(outbox: Outbox, practice: Practice, step: ShownStep, take: NewTake): Promise<void> {
  await outbox.keepTake(take.id, take.file(), aboutOf(practice, step, take), !take.sound)
}

/** judgeOnDevice lets the core on this device say at once what the server will say later; nothing where it cannot. */
export async function judgeOnDevice(practice: Practice, step: ShownStep, take: NewTake): Promise<Word> {
  if (!take.sound) return {}
  const { sound } = take
  const seconds = ('take' in sound ? sound : sound.samples).length / sound.rate // before the samples are given away
  try {
    const heard = await judge(
      {
        score: step.score,
        start_s: take.startMs / 1000,
        free_start: take.source === 'file',
        recent_tips: step.recent_tips,
        tips: practice.tips,
        air: practice.setting.conventions.air,
        naming: practice.setting.conventions.naming,
        ...(step.result && { best: step.result }),
      },
      take.sound,
    )
    performance.mark('take-judged')
    const ladder = await climbed(practice, step, heard, seconds)
    return { heard, ...(ladder && { ladder }) }
  } catch (error) {
    console.warn(error) // the server's word comes all the same
    return {}
  }
}

/** Milliseconds for which a page keeps still, so that it changes once, with the word on it. */
const atOnceMs = 150

/** atOnce is the word where it comes at once; undefined where a player has to be told to wait. */
export function atOnce(word: Promise<Word>): Promise<Word | undefined> {
  return Promise.race([word, new Promise<undefined>((resolve) => setTimeout(resolve, atOnceMs))])
}

/** Word is what this device says of a take, and where it leaves the ladder. */
type Word = Pick<AboutTake, 'heard' | 'ladder'>

/**
 * climbed leads the ladder on by the word of this device, so that the next rung is there
 * without a network. The server replays the same rules.
 */
async function climbed(practice: Practice, step: ShownStep, heard: Heard, seconds: number) {
  if (!step.ladder) return undefined
  return climb({
    setting: practice.setting,
    ladder: step.ladder,
    day: practice.day,
    rung: step.score.rung ?? step.ladder.rung,
    verdict: heard.verdict,
    seconds,
  })
}

/**
 * aboutOf is how things stood when the take was played. It may go up days later, when
 * the player stands elsewhere.
 */
function aboutOf(practice: Practice, step: ShownStep, take: NewTake): AboutTake {
  return {
    step: step.id,
    version: step.version,
    source: take.source,
    startMs: take.startMs,
    ...(take.through && { through: take.through }),
    day: practice.day,
    ...(step.tempi && step.score.tempo_bpm !== step.tempi.own_bpm && { tempo: step.score.tempo_bpm }),
    ...(step.score.rung && { rung: step.score.rung }),
    ...(step.score.alternates && step.takes.length > 0 && { repeat: step.takes.length }),
    ...(step.best_s && { bestMs: Math.round(1000 * step.best_s) }),
  }
}
