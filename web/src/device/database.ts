import { type DBSchema, type IDBPDatabase, openDB } from 'idb'

/** Sealed is something only its owner's key opens. */
export type Sealed = { iv: Uint8Array<ArrayBuffer>; bytes: ArrayBuffer }

/** Entry is one thing to be told to the server, in the order it happened. */
export type Entry = {
  id: string
  /** owner is the player who made it */
  owner: string
  kind: 'take' | 'told'
  /** madeAt is the device's own clock, in milliseconds */
  madeAt: number
  /** size of a take's file, in bytes */
  size: number
  state: 'waiting' | 'sent' | 'refused'
  /** sentAt is when the server had it, by the device's clock */
  sentAt?: number
  /** problem is why the server would not have it */
  problem?: string
  about: Sealed
  /** sound is dropped once the server has it */
  sound?: Sealed
}

/** A server's answer, and when it was given. */
type Kept = { value: unknown; at: number }

/**
 * What a device keeps: what is to go up, answers to be shown without a network, and the
 * keys that the first two are sealed under.
 */
interface Device extends DBSchema {
  entries: { key: string; value: Entry; indexes: { byOwner: string } }
  kept: { key: string; value: Kept }
  keys: { key: string; value: CryptoKey }
}

/** One connection for the page; a second would wait for the first to close. */
let open: Promise<IDBPDatabase<Device>> | undefined

/** database is what this device keeps; it is opened once. */
export function database(): Promise<IDBPDatabase<Device>> {
  open ??= openDB<Device>('earlychorus', 1, {
    upgrade(db) {
      db.createObjectStore('entries', { keyPath: 'id' }).createIndex('byOwner', 'owner')
      db.createObjectStore('kept')
      db.createObjectStore('keys')
    },
    terminated() {
      open = undefined
    },
  }).catch((error) => {
    open = undefined
    throw error
  })
  return open
}
