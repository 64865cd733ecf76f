// @vitest-environment node
import 'fake-indexeddb/auto'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { sendForEveryone } from './background'
import { Outbox } from './outbox'
import { forgetEveryone, keepKey } from './vault'

const about = { step: 's', version: 1, source: 'microphone' as const, startMs: 600, day: '2026-11-28' }
const server = vi.fn<(address: string) => Promise<Response>>()

beforeEach(async () => {
  vi.stubGlobal('fetch', server)
  vi.stubGlobal('navigator', {})
  await keepKey('ada', new Uint8Array(32).fill(3))
})
afterEach(async () => {
  await forgetEveryone()
  vi.unstubAllGlobals()
})

it('sends what a closed page left behind, and says so when it cannot', async () => {
  server.mockRejectedValue(new TypeError('no network'))
  const page = new Outbox('ada')
  await page.keepTake('t1', new Blob(['sound']), about, true)
  page.close()
  await expect(sendForEveryone()).rejects.toThrow('no network')

  // An answer is read once, and the page may have been sending still.
  server.mockImplementation(async () => new Response(JSON.stringify({ received: 5, safe: true })))
  await sendForEveryone()
  const later = new Outbox('ada')
  await later.open()
  expect(later.now().items.map((i) => i.state)).toEqual(['sent'])
  later.close()
})

it('sends nothing of those who signed out', async () => {
  server.mockRejectedValue(new TypeError('no network'))
  const page = new Outbox('ada')
  await page.keepTake('t2', new Blob(['sound']), about, true)
  page.close()
  await forgetEveryone()
  server.mockClear()
  await sendForEveryone()
  expect(server).not.toHaveBeenCalled()
})
