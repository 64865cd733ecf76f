import type { Schemas } from '../api/client'
import { Failure } from '../api/client'
import type { Heard } from '../ear/ask'
import { database, type Entry } from './database'
import { isOffline } from './kept'
import { tell, upload } from './upload'
import { seal, sealJSON, unseal, unsealJSON } from './vault'

/** AboutTake is what is known of a take on this device. */
export type AboutTake = {
  step: string
  version: number
  source: 'microphone' | 'file' | 'simulated'
  startMs: number
  /** through is the microphone's opaque name */
  through?: string
  tempo?: number
  rung?: number
  /** repeat is how often the step was played before, where that changes it */
  repeat?: number
  bestMs?: number
  day: string
  /** heard is the core's word on it, given on this device at once */
  heard?: Heard
  /** ladder is how the take left it */
  ladder?: Schemas['Ladder']
}

/** Message is a small thing to be told: a tick, a flag, a step back. */
export type Message = {
  method: 'PUT'
  path: string
  body: Record<string, unknown>
  step?: string
  /** ladder is how a step back left it */
  ladder?: Schemas['Ladder']
  ticked?: boolean[]
  /** result is what came of a step that no recording is made of */
  result?: Heard['verdict']['result']
}

/** Item is an entry as the page sees it: opened, without its sound. */
export type Item = Omit<Entry, 'about' | 'sound'> & { take?: AboutTake; message?: Message }

/** State is what the page shows of the outbox. */
export type OutboxState = {
  items: readonly Item[]
  /** going is the take being sent now */
  going?: { id: string; sent: number; size: number }
  /** stopped is why nothing goes up just now */
  stopped?: 'offline' | 'signed-out'
  /** judging says that a take, or the device's word on it, is not on the disk yet */
  judging?: boolean
  /** coming is how many takes were told of and are not among the items yet */
  coming: number
  /** looked says that the device was asked what it holds: until then nobody knows what waits */
  looked: boolean
}

const firstPause = 2_000 // milliseconds
/** Milliseconds: a device that was offline for a day tries once a minute. */
const longestPause = 60_000

/**
 * Outbox holds what a player did until it is safe with the director: on disk
 * before anything else, sent in order, each once.
 */
export class Outbox {
  private state: OutboxState = { items: [], coming: 0, looked: false }
  private readonly watchers = new Set<() => void>()
  private running = false
  private timer: ReturnType<typeof setTimeout> | undefined
  private pause = firstPause
  /** judging are takes that wait for the device's own word before they go up; a reload forgets that, and they go without */
  private readonly judging = new Set<string>()
  private readonly coming = new Set<string>()
  readonly owner: string

  /** onStopped is told when nothing can be sent just now: the browser may come back to it by itself. */
  private readonly onStopped: () => void

  constructor(owner: string, onStopped = () => {}) {
    this.owner = owner
    this.onStopped = onStopped
  }

  /** open reads what is on the device and begins to send. */
  async open(): Promise<void> {
    await this.read()
    void this.send()
  }

  close() {
    clearTimeout(this.timer)
    this.watchers.clear()
  }

  now = (): OutboxState => this.state

  watch = (changed: () => void): (() => void) => {
    this.watchers.add(changed)
    return () => this.watchers.delete(changed)
  }

  /** expect says that a take is about to be kept: from now on not all is safe. */
  expect(id: string) {
    if (this.coming.has(id)) return
    this.coming.add(id)
    this.show({})
  }

  /** keepTake puts a take on the device; when it resolves the take survives a closed page. */
  async keepTake(id: string, file: Blob, take: AboutTake, judged: boolean): Promise<void> {
    if (!judged) this.judging.add(id)
    this.expect(id)
    try {
      await this.put({
        id,
        owner: this.owner,
        kind: 'take',
        madeAt: Date.now(),
        size: file.size,
        state: 'waiting',
        about: await sealJSON(this.owner, take),
        sound: await seal(this.owner, await file.arrayBuffer()),
      })
    } finally {
      if (this.coming.delete(id)) this.show({}) // it could not be kept
    }
  }

  /** keepMessage puts something small on the device to be told. */
  async keepMessage(id: string, message: Message): Promise<void> {
    const about = await sealJSON(this.owner, message)
    await this.put({ id, owner: this.owner, kind: 'told', madeAt: Date.now(), size: 0, state: 'waiting', about })
  }

  /** addVerdict adds what the device said of a take that it keeps, and lets it go up. */
  async addVerdict(id: string, word: Pick<AboutTake, 'heard' | 'ladder'>): Promise<void> {
    // Shown before it is written: a player is waiting.
    const withVerdict = (i: Item) => (i.id === id && i.take ? { ...i, take: { ...i.take, ...word } } : i)
    this.show({ items: this.state.items.map(withVerdict) })
    await this.writeVerdict(id, word).finally(() => this.judging.delete(id))
    this.show({})
    void this.send()
  }

  private async writeVerdict(id: string, word: Pick<AboutTake, 'heard' | 'ladder'>): Promise<void> {
    const db = await database()
    const entry = await db.get('entries', id)
    if (!entry) return
    const about = await sealJSON(this.owner, { ...(await unsealJSON<AboutTake>(this.owner, entry.about)), ...word })
    const tx = db.transaction('entries', 'readwrite') // it may have been sent meanwhile
    const latest = await tx.store.get(id)
    if (latest) await tx.store.put({ ...latest, about })
    await tx.done
    await this.read()
  }

  /** throwAway drops an entry: one the server refused, or one it has shown. */
  async throwAway(ids: string[]): Promise<void> {
    const tx = (await database()).transaction('entries', 'readwrite')
    await Promise.all([...ids.map((id) => tx.store.delete(id)), tx.done])
    await this.read()
  }

  /** send sends what waits, in order, until nothing does or the network is gone. Two pages never send at once. */
  send = async (): Promise<void> => {
    clearTimeout(this.timer)
    if (this.running) return
    this.running = true
    try {
      await alone(() => this.sendAll())
      await this.read() // another page, or the browser in the background, may have sent it
      this.pause = firstPause
      this.show({ stopped: undefined, going: undefined })
    } catch (error) {
      this.onStopped()
      const signedOut = error instanceof Failure && error.status === 401
      this.show({ stopped: signedOut ? 'signed-out' : 'offline', going: undefined })
      this.timer = setTimeout(this.send, this.pause)
      this.pause = Math.min(2 * this.pause, longestPause)
    } finally {
      this.running = false
    }
    // What came in while the last one went up.
    const next = this.state.items.find((i) => i.state === 'waiting')
    if (!this.state.stopped && next && !this.judging.has(next.id)) void this.send()
  }

  /** sendWaiting sends what waits, once; it rejects when it could not. */
  async sendWaiting(): Promise<void> {
    await alone(() => this.sendAll())
  }

  private async sendAll(): Promise<void> {
    for (;;) {
      const next = (await this.mine()).find((e) => e.state === 'waiting')
      if (!next || this.judging.has(next.id)) return
      await this.sendOne(next)
      await this.read()
    }
  }

  private async sendOne(entry: Entry): Promise<void> {
    const db = await database()
    try {
      if (entry.kind === 'take') await this.sendTake(entry)
      else await this.sendMessage(entry)
    } catch (error) {
      if (isOffline(error) || !(error instanceof Failure) || error.status === 401 || error.status >= 500) throw error
      await db.put('entries', {
        ...((await db.get('entries', entry.id)) ?? entry),
        state: 'refused',
        problem: error.message,
      })
      return
    }
    const { sound: _, ...rest } = (await db.get('entries', entry.id)) ?? entry
    await db.put('entries', { ...rest, state: 'sent', sentAt: Date.now() })
  }

  private async sendTake(entry: Entry): Promise<void> {
    const about = await unsealJSON<AboutTake>(this.owner, entry.about)
    if (!entry.sound) return
    const sound = await unseal(this.owner, entry.sound)
    await upload(entry.id, queryOf(about, Date.now() - entry.madeAt), sound, (sent, size) =>
      this.show({ going: { id: entry.id, sent, size }, stopped: undefined }),
    )
  }

  private async sendMessage(entry: Entry): Promise<void> {
    const message = await unsealJSON<Message>(this.owner, entry.about)
    await tell(message.method, message.path, { ...message.body, ago_ms: Math.max(0, Date.now() - entry.madeAt) })
  }

  private async put(entry: Entry): Promise<void> {
    const db = await database()
    const tx = db.transaction('entries', 'readwrite', { durability: 'strict' }) // on disk before it is called kept
    await Promise.all([tx.store.put(entry), tx.done])
    await this.read()
    void this.send()
  }

  private async mine(): Promise<Entry[]> {
    const all = await (await database()).getAllFromIndex('entries', 'byOwner', this.owner)
    return all.sort((a, b) => a.madeAt - b.madeAt)
  }

  private async read(): Promise<void> {
    const items = await Promise.all((await this.mine()).map((e) => this.opened(e)))
    for (const i of items) this.coming.delete(i.id)
    this.show({ items, looked: true })
  }

  private async opened({ about, sound: _, ...rest }: Entry): Promise<Item> {
    const opened = await unsealJSON(this.owner, about)
    return rest.kind === 'take' ? { ...rest, take: opened as AboutTake } : { ...rest, message: opened as Message }
  }

  private show(change: Partial<OutboxState>) {
    this.state = { ...this.state, ...change, judging: this.judging.size > 0, coming: this.coming.size }
    for (const changed of this.watchers) changed()
  }
}

/** alone runs when no other page of this origin does the same. */
async function alone(work: () => Promise<void>): Promise<void> {
  if ('locks' in navigator) await navigator.locks.request('outbox', work)
  else await work()
}

/**
 * queryOf is how a take was recorded, as the server reads it. It travels beside the
 * sound because the sound goes up in parts.
 */
function queryOf(t: AboutTake, agoMs: number): URLSearchParams {
  const query = new URLSearchParams({
    step: t.step,
    version: String(t.version),
    source: t.source,
    start_ms: String(t.startMs),
    ago_ms: String(Math.max(0, Math.round(agoMs))),
  })
  if (t.through) query.set('through', t.through)
  if (t.tempo) query.set('tempo', String(t.tempo))
  if (t.rung) query.set('rung', String(t.rung))
  if (t.repeat) query.set('repeat', String(t.repeat))
  if (t.bestMs) query.set('best_ms', String(t.bestMs))
  if (t.heard) query.set('heard', t.heard.verdict.result)
  return query
}

/** isFull reports whether a device had no room to keep something. */
export function isFull(error: unknown): boolean {
  return error instanceof DOMException && error.name === 'QuotaExceededError'
}
