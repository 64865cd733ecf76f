import { database } from './database'
import { Outbox } from './outbox'

/** syncTag is what the browser is asked to come back with when there is a network. */
export const syncTag = 'outbox'

/** A registration in browsers that have a background sync (Chromium's); the others send when the page is open. */
type Syncing = ServiceWorkerRegistration & { sync?: { register: (tag: string) => Promise<void> } }

/** askForSync has the browser send what waits as soon as there is a network, even when the page is closed by then. */
export async function askForSync(): Promise<void> {
  if (!('serviceWorker' in navigator)) return
  const registration = (await navigator.serviceWorker.getRegistration()) as Syncing | undefined
  await registration?.sync?.register(syncTag)
}

/**
 * sendForEveryone sends what waits of those whose key is on this device: who is signed in.
 * It rejects when the network is gone again, so that the browser asks once more.
 */
export async function sendForEveryone(): Promise<void> {
  const owners = await (await database()).getAllKeys('keys')
  for (const owner of owners) await new Outbox(owner).sendWaiting()
}
