// @vitest-environment node
import 'fake-indexeddb/auto'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { database } from './database'
import { type AboutTake, Outbox } from './outbox'
import { forgetEveryone, hasKey, keepKey, NoKeyError } from './vault'

/** Server is as much of the other end as the outbox talks to; it can be gone, and drop answers on the way. */
class Server {
  gone = false
  dropAnswers = 0
  refuses: number | undefined
  parts = new Map<string, Uint8Array>()
  sealed: { id: string; query: URLSearchParams; bytes: number }[] = []
  messages: { path: string; body: Record<string, unknown> }[] = []

  fetch = async (url: string, init: RequestInit = {}): Promise<Response> => {
    if (this.gone) throw new TypeError('Failed to fetch')
    const answer = await this.answer(new URL(url, 'http://school.example'), init)
    if (this.dropAnswers > 0) {
      this.dropAnswers--
      throw new TypeError('Failed to fetch')
    }
    return answer
  }

  private async answer({ pathname, searchParams }: URL, init: RequestInit): Promise<Response> {
    const [, , takes, id = '', what, offset] = pathname.split('/')
    if (takes !== 'takes') {
      this.messages.push({ path: pathname, body: JSON.parse(String(init.body)) })
      return new Response(null, { status: 204 })
    }
    const have = this.parts.get(id) ?? new Uint8Array()
    if (what === 'received') return Response.json({ received: have.length, safe: this.sealed.some((s) => s.id === id) })
    if (what === 'parts') {
      const part = new Uint8Array(await new Response(init.body).arrayBuffer())
      const next = new Uint8Array(Math.max(have.length, Number(offset) + part.length))
      next.set(have)
      next.set(part, Number(offset))
      this.parts.set(id, next)
      return Response.json({ received: next.length })
    }
    if (this.refuses) return Response.json({ detail: 'This step is gone.' }, { status: this.refuses })
    if (!this.sealed.some((s) => s.id === id)) this.sealed.push({ id, query: searchParams, bytes: have.length })
    return Response.json({ id })
  }
}

const about: AboutTake = {
  step: 'step',
  version: 2,
  source: 'microphone',
  startMs: 600,
  through: 'ab12',
  day: '2026-11-26',
  rung: 3,
}
const sound = () => new Blob([new Uint8Array(700_000).map((_, n) => n % 251)])
let server: Server

beforeEach(async () => {
  server = new Server()
  vi.stubGlobal('fetch', server.fetch)
  vi.stubGlobal('navigator', {})
  await keepKey('ada', new Uint8Array(32).fill(7))
})

afterEach(async () => {
  const db = await database()
  await db.clear('entries')
  await forgetEveryone()
})

/** settled waits until nothing of an outbox is on its way. */
const settled = (o: Outbox) => vi.waitFor(() => expect(o.now().items.every((i) => i.state !== 'waiting')).toBe(true))

it('counts a take from the moment it is told of until it is on the disk, or cannot be', async () => {
  const outbox = new Outbox('ada')
  expect(outbox.now().looked).toBe(false)
  outbox.expect('t1')
  const kept = outbox.keepTake('t1', sound(), about, true)
  expect(outbox.now()).toMatchObject({ coming: 1, items: [] })
  await kept
  expect(outbox.now()).toMatchObject({ coming: 0, looked: true })
  expect(outbox.now().items.map((i) => i.id)).toEqual(['t1'])
  await settled(outbox)
  await forgetEveryone() // without a key nothing can be kept
  await expect(outbox.keepTake('t2', sound(), about, true)).rejects.toThrow(NoKeyError)
  expect(outbox.now().coming).toBe(0)
})

it('sends a take whole, in parts, and says when it is safe', async () => {
  const outbox = new Outbox('ada')
  await outbox.keepTake('t1', sound(), about, true)
  await settled(outbox)
  expect(server.sealed).toHaveLength(1)
  expect(server.sealed[0]?.bytes).toBe(700_000)
  expect(Object.fromEntries(server.sealed[0]?.query ?? [])).toMatchObject({
    step: 'step',
    version: '2',
    rung: '3',
    through: 'ab12',
    size: '700000',
  })
  expect(outbox.now().items[0]).toMatchObject({ id: 't1', state: 'sent' })
})

it('keeps takes without a network, through a closed page, and sends each once', async () => {
  server.gone = true
  const closed = new Outbox('ada')
  await closed.keepTake('t1', sound(), about, true)
  await closed.keepTake('t2', sound(), about, true)
  await vi.waitFor(() => expect(closed.now().stopped).toBe('offline'))
  closed.close()

  server.gone = false
  server.dropAnswers = 3 // it arrives, and the device is not told
  const opened = new Outbox('ada')
  await opened.open()
  await vi.waitFor(async () => {
    await opened.send()
    expect(opened.now().items.map((i) => i.state)).toEqual(['sent', 'sent'])
  })
  expect(server.sealed.map((s) => s.id)).toEqual(['t1', 't2'])
})

it('goes on where it stopped', async () => {
  server.parts.set('t1', new Uint8Array(262_144))
  const outbox = new Outbox('ada')
  const puts = vi.spyOn(server, 'fetch')
  vi.stubGlobal('fetch', puts)
  await outbox.keepTake('t1', sound(), about, true)
  await settled(outbox)
  expect(puts.mock.calls.map(([url]) => url).filter((url) => url.includes('/parts/'))).toEqual([
    '/api/takes/t1/parts/262144',
    '/api/takes/t1/parts/524288',
  ])
})

it('waits for the word of this device, and takes it along', async () => {
  const outbox = new Outbox('ada')
  await outbox.keepTake('t1', sound(), about, false)
  await outbox.send()
  expect(server.sealed).toHaveLength(0)
  expect(outbox.now().judging, 'it is not called kept yet').toBe(true)
  await outbox.addVerdict('t1', { heard: { verdict: { result: 'nearly' } } as never })
  expect(outbox.now().judging).toBe(false)
  await settled(outbox)
  expect(server.sealed[0]?.query.get('heard')).toBe('nearly')
})

it('keeps what the server refuses, and says why', async () => {
  server.refuses = 404
  const outbox = new Outbox('ada')
  await outbox.keepTake('t1', sound(), about, true)
  await settled(outbox)
  expect(outbox.now().items[0]).toMatchObject({ state: 'refused', problem: 'This step is gone.' })
  await outbox.throwAway(['t1'])
  expect(outbox.now().items).toEqual([])
})

it('stops for a sign-in, and loses nothing', async () => {
  server.refuses = 401
  const outbox = new Outbox('ada')
  await outbox.keepTake('t1', sound(), about, true)
  await vi.waitFor(() => expect(outbox.now().stopped).toBe('signed-out'))
  expect(outbox.now().items[0]?.state).toBe('waiting')
  outbox.close()
})

it('tells small things in order, with how long ago', async () => {
  server.gone = true
  const outbox = new Outbox('ada')
  await outbox.keepMessage('f1', { method: 'PUT', path: '/practice/flags/f1', body: { kind: 'hurts', words: '' } })
  const later = vi.spyOn(Date, 'now').mockReturnValue(Date.now() + 90_000)
  server.gone = false
  await outbox.send()
  await settled(outbox)
  later.mockRestore()
  expect(server.messages[0]?.path).toBe('/api/practice/flags/f1')
  expect(server.messages[0]?.body.ago_ms).toBeGreaterThanOrEqual(90_000)
  expect(outbox.now().items[0]?.state).toBe('sent') // in view until the server's answer shows it
})

it('leaves nothing readable behind for the next player', async () => {
  server.gone = true
  const outbox = new Outbox('ada')
  await outbox.keepTake('t1', sound(), about, true)
  await forgetEveryone() // ada signs out
  expect(await hasKey('ada')).toBe(false)
  const onDisk = await (await database()).getAll('entries')
  expect(onDisk).toHaveLength(1)
  expect(new TextDecoder('latin1').decode(onDisk[0]?.about.bytes)).not.toContain('step')
  const bytes = new Uint8Array(onDisk[0]?.sound?.bytes ?? new ArrayBuffer(0))
  expect(bytes.slice(0, 251)).not.toEqual(new Uint8Array(251).map((_, n) => n))

  await keepKey('bo', new Uint8Array(32).fill(9))
  const other = new Outbox('bo')
  await other.open()
  expect(other.now().items).toEqual([])
  await expect(new Outbox('ada').open()).rejects.toThrow(NoKeyError)

  server.gone = false
  await keepKey('ada', new Uint8Array(32).fill(7)) // and comes back
  const back = new Outbox('ada')
  await back.open()
  await settled(back)
  expect(server.sealed.map((s) => s.id)).toEqual(['t1'])
  outbox.close()
})
