import type { Schemas } from '../../api/client'
import type { Item } from '../../device/outbox'
import type { Practice, PracticeStep } from './queries'

/** The four things a take can come to. */
export type Result = Schemas['Said']['result']

/** ShownTake is a take of today: the server's, or one that is still on this device. */
export type ShownTake = Omit<Schemas['PracticeTake'], 'state'> & { state: 'waiting' | 'done' | 'failed' | 'kept' }

/** ShownStep is a step as its player sees it now, with what this device knows and the server does not yet. */
export type ShownStep = Omit<PracticeStep, 'takes'> & { takes: ShownTake[] }

/** withDevice lays what is on the device over what the server said. */
export function withDevice(practice: Practice, items: readonly Item[]): ShownStep[] {
  return practice.steps.map((step) => items.reduce((s, item) => withItem(s, item, practice.day), step as ShownStep))
}

/**
 * withItem lays one thing of the device over a step. Once the server has judged the take
 * its word stands, and the device's copy no longer counts.
 */
function withItem(step: ShownStep, item: Item, day: string): ShownStep {
  const { take, message } = item
  if (message?.ladder && message.ladder.key === step.ladder?.key) return { ...step, ladder: message.ladder }
  if (message?.result && message.step === step.id) return { ...step, result: message.result }
  if (message?.ticked && message.step === step.id) return { ...step, ticked: message.ticked }
  if (!take || take.day !== day) return step
  const served = step.takes.find((t) => t.id === item.id)
  if (served && served.state !== 'waiting') return step // the server's word is here
  const ladder = take.ladder && take.ladder.key === step.ladder?.key ? take.ladder : step.ladder
  if (take.step !== step.id) return { ...step, ...(ladder && { ladder }) }
  return withTake(step, item, ladder)
}

/**
 * withTake adds a take that only the device knows, and what follows from it: the best
 * hold, the day's best result, which tip was shown.
 */
function withTake(step: ShownStep, item: Item, ladder: ShownStep['ladder']): ShownStep {
  const heard = item.take?.heard
  const shown: ShownTake = {
    id: item.id,
    state: 'kept',
    played_at: new Date(item.madeAt).toISOString(),
    ...(heard && { result: heard.verdict.result, ribbon: heard.small }),
  }
  const best = Math.max(step.best_s ?? 0, heard?.longest_s ?? 0)
  return {
    ...step,
    ...(step.test && !step.takes.some((t) => t.id === item.id) && { test: withUsed(step.test, heard) }),
    ...(ladder && { ladder }),
    ...(best > 0 && { best_s: best }),
    ...(heard && {
      result: heard.best,
      recent_tips: [heard.verdict.tip.key, ...step.recent_tips],
    }),
    takes: [shown, ...step.takes.filter((t) => t.id !== item.id)],
  }
}

/** withUsed counts a take of a test that the server does not know yet; one that cannot be judged uses none up. */
function withUsed(test: Schemas['PracticeTest'], heard?: { verdict: Pick<Schemas['Said'], 'result'> }) {
  return heard?.verdict.result === 'cant-tell' ? test : { ...test, used: Math.min(test.takes, test.used + 1) }
}

/** shown lists what the server's answer of a moment shows by now, so that the device need not. */
export function shown(practice: Practice, items: readonly Item[], answeredAt: number): string[] {
  const done = new Set(practice.steps.flatMap((s) => s.takes.filter((t) => t.state !== 'waiting').map((t) => t.id)))
  const isShown = (i: Item) =>
    i.message ? (i.sentAt ?? 0) < answeredAt : done.has(i.id) || (i.take && i.take.day !== practice.day)
  return items.filter((i) => i.state === 'sent' && isShown(i)).map((i) => i.id)
}
