import { database } from './database'

/** keep remembers an answer of the server for when there is no network; forgetEveryone drops it. */
export async function keep(name: string, value: unknown): Promise<void> {
  await (await database()).put('kept', { value, at: Date.now() }, name)
}

/** kept returns what was kept under a name. */
export async function kept<T>(name: string): Promise<T | undefined> {
  return (await (await database()).get('kept', name))?.value as T | undefined
}

/** orKept asks the server, and keeps the answer; without a network the last answer stands. */
export async function orKept<T>(name: string, ask: () => Promise<T>): Promise<T> {
  try {
    const fresh = await ask()
    void keep(name, fresh).catch(() => {}) // a full device still shows what it got
    return fresh
  } catch (error) {
    if (!isOffline(error)) throw error
    const last = await kept<T>(name).catch(() => undefined)
    if (last === undefined) throw error
    return last
  }
}

/** isOffline tells a missing network from an answer that says no. */
export function isOffline(error: unknown): boolean {
  return error instanceof TypeError
}
