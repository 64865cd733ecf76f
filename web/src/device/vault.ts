import { database, type Sealed } from './database'

/**
 * A player's things are kept under a key that the server gives at sign-in and
 * the device forgets at sign-out: on a shared laptop the next player finds
 * nothing to read, and the owner's unsent takes open again when they come back.
 */
const algorithm = 'AES-GCM'
/** AES-GCM's own length of a nonce (NIST SP 800-38D, 8.2). */
const ivBytes = 12

/** keepKey remembers a player's key, in a form no script can read back out. */
export async function keepKey(owner: string, raw: Uint8Array<ArrayBuffer>): Promise<void> {
  const key = await crypto.subtle.importKey('raw', raw, algorithm, false, ['encrypt', 'decrypt'])
  await (await database()).put('keys', key, owner)
}

/** hasKey reports whether this device may keep things for a player. */
export async function hasKey(owner: string): Promise<boolean> {
  return (await (await database()).count('keys', owner)) > 0
}

/** forgetEveryone drops every key and everything that is kept open. What is sealed stays, and nobody can read it. */
export async function forgetEveryone(): Promise<void> {
  const tx = (await database()).transaction(['keys', 'kept'], 'readwrite')
  await Promise.all([tx.objectStore('keys').clear(), tx.objectStore('kept').clear(), tx.done])
}

/** NoKeyError says that nothing can be kept here yet. */
export class NoKeyError extends Error {}

/**
 * keyOf is the key under which this player's things are sealed. Signing out forgets it,
 * and with it everything that was kept.
 */
async function keyOf(owner: string): Promise<CryptoKey> {
  const key = await (await database()).get('keys', owner)
  if (!key) throw new NoKeyError('This device keeps nothing for you until you have signed in with a network.')
  return key
}

/** seal encrypts under a nonce of its own: one that came twice would open both. */
export async function seal(owner: string, bytes: BufferSource): Promise<Sealed> {
  const iv = crypto.getRandomValues(new Uint8Array(ivBytes))
  return { iv, bytes: await crypto.subtle.encrypt({ name: algorithm, iv }, await keyOf(owner), bytes) }
}

/** unseal opens what seal closed; anybody else's key opens nothing. */
export async function unseal(owner: string, sealed: Sealed): Promise<ArrayBuffer> {
  return crypto.subtle.decrypt({ name: algorithm, iv: sealed.iv }, await keyOf(owner), sealed.bytes)
}

/** sealJSON seals what can be written as JSON. */
export async function sealJSON(owner: string, value: unknown): Promise<Sealed> {
  return seal(owner, new TextEncoder().encode(JSON.stringify(value)))
}

/**
 * unsealJSON opens it again. The type is the caller's word: nobody but this page writes
 * here.
 */
export async function unsealJSON<T>(owner: string, sealed: Sealed): Promise<T> {
  return JSON.parse(new TextDecoder().decode(await unseal(owner, sealed))) as T
}
