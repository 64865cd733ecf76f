import { Failure } from '../api/client'

/** A part goes up in a few seconds over weak Wi-Fi; a cut costs no more than one. */
const partBytes = 256 * 1024

/** Going is a take on its way: how much the server has of it. */
export type Going = (sent: number, size: number) => void

/**
 * upload sends a take in parts and goes on where an earlier try stopped. It
 * rejects with a TypeError when the network is gone and with a Failure when the
 * server says no; asking again is harmless either way.
 */
export async function upload(id: string, query: URLSearchParams, sound: ArrayBuffer, going: Going): Promise<void> {
  const start = await answerOf(await fetch(`/api/takes/${id}/received`))
  if (start.safe) return
  let sent = Math.min(start.received, sound.byteLength)
  going(sent, sound.byteLength)
  while (sent < sound.byteLength) {
    const part = sound.slice(sent, sent + partBytes)
    const said = await answerOf(await fetch(`/api/takes/${id}/parts/${sent}`, { method: 'PUT', body: part }))
    if (said.received <= sent) throw new TypeError('the part did not arrive')
    sent = said.received
    going(sent, sound.byteLength)
  }
  query.set('size', String(sound.byteLength))
  await answerOf(await fetch(`/api/takes/${id}/seal?${query}`, { method: 'POST' }))
}

/** answerOf tells a cut-off answer, which is tried again, from a refusal, which is not. */
async function answerOf(response: Response): Promise<{ received: number; safe: boolean }> {
  const said = await response.json().catch(() => {
    throw new TypeError('the answer was cut off')
  })
  if (!response.ok) throw new Failure(response.status, said)
  return said
}

/** tell sends something small that may be sent again without harm. */
export async function tell(method: string, path: string, body: unknown): Promise<void> {
  const response = await fetch(`/api${path}`, {
    method,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  })
  if (!response.ok) throw new Failure(response.status, await response.json().catch(() => ({})))
}
