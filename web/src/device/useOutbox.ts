import { createContext, useContext, useSyncExternalStore } from 'react'
import { Outbox, type OutboxState } from './outbox'

/** An outbox that belongs to nobody keeps nothing: for pages without a player. */
const nobody = new Outbox('')
/** The signed-in player's own outbox. */
export const OutboxContext = createContext<Outbox>(nobody)

/** useOutbox is the signed-in player's outbox. */
export const useOutbox = (): Outbox => useContext(OutboxContext)

/**
 * useOutboxState is what is asked of how the outbox stands. Only that is watched: as a take is told, or goes up
 * part by part, the page that shows none of it stays as it is.
 */
export function useOutboxState<T>(asked: (state: OutboxState) => T): T {
  const outbox = useOutbox()
  return useSyncExternalStore(outbox.watch, () => asked(outbox.now()))
}

export const itemsOf = (state: OutboxState) => state.items
