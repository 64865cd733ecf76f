import { createContext, useContext, useSyncExternalStore } from 'react'
import { Outbox, type OutboxState } from './outbox'

/** An outbox that belongs to nobody keeps nothing: for pages without a player. */
const nobody = new Outbox('')
/** The signed-in player's own outbox. */
export const OutboxContext = createContext<Outbox>(nobody)

/** useOutbox is the signed-in player's outbox and how it stands. */
export function useOutbox(): { outbox: Outbox; state: OutboxState } {
  const outbox = useContext(OutboxContext)
  return { outbox, state: useSyncExternalStore(outbox.watch, outbox.now) }
}
