import { Ear, type Range, Refused } from './core'
import type { FromEar, TakeAsked, TakeBegun, ToEar } from './messages'

/** Taken is the take that comes in: its number, and how much of it there is. */
type Taken = { number: number; about: TakeBegun; length: number; samples: number; aheadAt: number }

/** A minute's score is tens of thousands of letters: the core is not told it twice. */
const known = { taken: true, score: undefined }

/** How much more of a take has to come before what can be known of it is worked out again: a second, and for long takes a share. */
const aheadShare = 1 / 16
/**
 * How long before its end it is worked out for the last time: at least so many seconds, and so
 * many times as long as that takes. Later, the end itself would have to wait.
 */
const lastAhead = 0.45
const lastAheadTimes = 4

/** What the core answers when it filled the buffer with so many samples. */
const soundedBy = /^{"samples":(\d+)}$/

/**
 * Keeper keeps one ear and answers what comes in, in order. After a trap the ear's
 * memory is not to be trusted: the question that met it fails, a fresh ear is made,
 * and live listening goes on where it was.
 */
export class Keeper {
  private readonly fetchEar: () => Promise<Response>
  private readonly tell: (message: FromEar) => void
  private ear: Promise<Ear>
  private turn: Promise<void> = Promise.resolve()
  private listening: { range: Range; rate: number } | undefined
  private aimed: { midi: number; a4: number } | undefined
  private taken: Taken | undefined
  /** aheadTook is how long it last took to work a take out, in seconds. */
  private aheadTook = 0
  private traps = 0

  constructor(fetchEar: () => Promise<Response>, tell: (message: FromEar) => void) {
    this.fetchEar = fetchEar
    this.tell = tell
    this.ear = Ear.load(fetchEar())
    this.ear.catch(() => {}) // whoever asks first is told
  }

  /** take answers a message after those before it; it never rejects. */
  take(message: ToEar): Promise<void> {
    this.turn = this.turn.then(() => this.answer(message))
    return this.turn
  }

  private async answer(message: ToEar): Promise<void> {
    try {
      this.reply(await this.ear, message)
    } catch (error) {
      const reason = error instanceof Error ? error.message : String(error)
      if (!(error instanceof Refused)) this.renew(reason)
      this.tell({ kind: 'failed', reason, ...(message.kind === 'ask' && { id: message.id }) })
    }
  }

  private reply(ear: Ear, message: ToEar) {
    switch (message.kind) {
      case 'open':
        this.listening = { range: message.range, rate: message.rate }
        this.aimed = undefined
        return ear.open(message.range, message.rate)
      case 'aim':
        this.aimed = { midi: message.midi, a4: message.a4 }
        return ear.aim(message.midi, message.a4)
      case 'take':
        ear.ask('take', message.about)
        this.taken = { ...message, samples: 0, aheadAt: message.about.rate }
        return
      case 'hear':
        this.tell({ kind: 'live', moments: ear.hear(message.samples) })
        return this.goAhead(ear, message.samples.length)
    }
    if (message.take && !this.isTaken(message.take, message.request))
      return this.tell({ kind: 'not-taken', id: message.id })
    const answer = message.take
      ? ear.answer(message.name, { ...(message.request as object), ...known })
      : ear.answer(message.name, message.request, message.samples)
    const sounded = soundedBy.exec(answer)
    const sound = sounded && ear.sound(Number(sounded[1]))
    this.tell({ kind: 'answer', id: message.id, answer, ...(sound && { sound }) })
  }

  /** goAhead works out what can be known of the take, every so often. */
  private goAhead(ear: Ear, more: number) {
    const taken = this.taken
    if (!taken) return
    taken.samples += more
    if (taken.samples < taken.aheadAt) return
    const { rate } = taken.about
    const next = taken.samples + Math.max(rate, taken.samples * aheadShare)
    const last = taken.length - Math.max(lastAhead, lastAheadTimes * this.aheadTook) * rate
    taken.aheadAt = next <= last ? next : taken.samples < last ? last : Number.POSITIVE_INFINITY
    const began = performance.now()
    ear.ahead()
    this.aheadTook = (performance.now() - began) / 1000
    if (taken.samples >= last) ear.sweep()
  }

  /** isTaken says whether a question is about the take that came in, all of it, and of the same score. */
  private isTaken(asked: TakeAsked, request: unknown): boolean {
    const taken = this.taken
    if (asked.number !== taken?.number) return false
    this.taken = undefined
    const { score } = request as { score?: unknown }
    return asked.samples === taken.samples && JSON.stringify(score) === JSON.stringify(taken.about.score)
  }

  /** renew makes a fresh ear; what was being listened to is opened again. */
  private renew(reason: string) {
    this.traps++
    this.taken = undefined
    this.tell({ kind: 'trapped', times: this.traps, reason })
    const { listening, aimed } = this
    this.ear = Ear.load(this.fetchEar()).then((ear) => {
      if (listening) ear.open(listening.range, listening.rate)
      if (aimed) ear.aim(aimed.midi, aimed.a4)
      return ear
    })
    this.ear.catch(() => {})
  }
}
