import { Ear, type Range, Refused } from './core'
import type { FromEar, ToEar } from './messages'

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
      case 'hear':
        return this.tell({ kind: 'live', moments: ear.hear(message.samples) })
    }
    const answer = ear.ask(message.name, message.request, message.samples)
    const samples = (answer as { samples?: unknown } | null)?.samples
    const sound = typeof samples === 'number' ? ear.sound(samples) : undefined
    this.tell({ kind: 'answer', id: message.id, answer, ...(sound && { sound }) })
  }

  /** renew makes a fresh ear; what was being listened to is opened again. */
  private renew(reason: string) {
    this.traps++
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
