// @vitest-environment node
import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { database } from './database'
import { keep, kept, orKept } from './kept'
import { isTight } from './space'
import { forgetEveryone, hasKey, keepKey, NoKeyError, seal, sealJSON, unseal, unsealJSON } from './vault'

const raw = (fill: number) => new Uint8Array(32).fill(fill)

beforeEach(async () => {
  await forgetEveryone()
  await keepKey('ada', raw(1))
})

describe('the vault', () => {
  it('gives back what was sealed, and nothing of it can be read without the key', async () => {
    const words = new TextEncoder().encode('one long, warm note')
    const sealed = await seal('ada', words)
    expect(new TextDecoder().decode(sealed.bytes)).not.toContain('note')
    expect(new TextDecoder().decode(await unseal('ada', sealed))).toBe('one long, warm note')
    expect(await unsealJSON('ada', await sealJSON('ada', { rung: 3 }))).toEqual({ rung: 3 })
  })

  it('never seals two things alike', async () => {
    const [one, two] = [await sealJSON('ada', 'same'), await sealJSON('ada', 'same')]
    expect(Buffer.from(one.bytes).equals(Buffer.from(two.bytes))).toBe(false)
  })

  it('opens for its owner alone', async () => {
    await keepKey('bo', raw(2))
    const sealed = await sealJSON('ada', 'mine')
    await expect(unsealJSON('bo', sealed)).rejects.toThrow()
  })

  it('notices when somebody changed what lies in it', async () => {
    const sealed = await sealJSON('ada', 'mine')
    const bytes = new Uint8Array(sealed.bytes)
    bytes[0] = (bytes[0] ?? 0) ^ 1
    await expect(unsealJSON('ada', { ...sealed, bytes: bytes.buffer })).rejects.toThrow()
  })

  it('closes at sign-out, and opens again for who comes back', async () => {
    const sealed = await sealJSON('ada', 'still here')
    await forgetEveryone()
    expect(await hasKey('ada')).toBe(false)
    await expect(unsealJSON('ada', sealed)).rejects.toThrow(NoKeyError)
    await keepKey('ada', raw(1))
    expect(await unsealJSON('ada', sealed)).toBe('still here')
  })

  it('does not give its key to any script', async () => {
    const key = await (await database()).get('keys', 'ada')
    expect(key?.extractable).toBe(false)
    await expect(crypto.subtle.exportKey('raw', key as CryptoKey)).rejects.toThrow()
  })
})

describe('what the server answered', () => {
  it('stands while there is no network', async () => {
    expect(await orKept('plan', async () => ({ steps: 3 }))).toEqual({ steps: 3 })
    await vi.waitFor(async () => expect(await kept('plan')).toEqual({ steps: 3 }))
    const gone = () => Promise.reject(new TypeError('Failed to fetch'))
    expect(await orKept('plan', gone)).toEqual({ steps: 3 })
    await expect(orKept('never asked', gone)).rejects.toThrow(TypeError)
  })

  it('does not stand against a no', async () => {
    await keep('plan', { steps: 3 })
    await expect(orKept('plan', () => Promise.reject(new Error('Sign in first.')))).rejects.toThrow('Sign in first.')
  })

  it('is gone with its player', async () => {
    await keep('plan', { steps: 3 })
    await forgetEveryone()
    expect(await kept('plan')).toBeUndefined()
  })
})

describe('room on the device', () => {
  const estimate = (e: object) => vi.stubGlobal('navigator', { storage: { estimate: async () => e } })

  it('is tight under thirty megabytes', async () => {
    estimate({ quota: 100e6, usage: 80e6 })
    expect(await isTight()).toBe(true)
    estimate({ quota: 100e6, usage: 10e6 })
    expect(await isTight()).toBe(false)
  })

  it('is taken for enough where the browser does not say', async () => {
    vi.stubGlobal('navigator', {})
    expect(await isTight()).toBe(false)
    estimate({})
    expect(await isTight()).toBe(false)
  })
})
