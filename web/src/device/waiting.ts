import { database } from './database'

/** waitingOf counts what of a player's is on this device and not yet with the director. */
export async function waitingOf(owner: string): Promise<number> {
  const all = await (await database()).getAllFromIndex('entries', 'byOwner', owner)
  return all.filter((e) => e.state === 'waiting').length
}
