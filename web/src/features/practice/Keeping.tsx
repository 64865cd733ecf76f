import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import type { Item } from '../../device/outbox'
import { isTight } from '../../device/space'
import { useOutbox, useOutboxState } from '../../device/useOutbox'
import { Button } from '../../ui/Button'

/** Keeping says which takes are safe with the director and which are still on this device. */
export function Keeping() {
  const outbox = useOutbox()
  const state = useOutboxState((all) => all)
  const waiting = state.items.filter((i) => i.state === 'waiting' && i.kind === 'take')
  const told = state.items.filter((i) => i.state === 'waiting' && i.kind === 'told')
  const refused = state.items.filter((i) => i.state === 'refused')
  const still = waiting.length + told.length + state.coming
  const { data: tight } = useQuery({ queryKey: ['room', still], queryFn: isTight })
  return (
    <section
      aria-label="What is safe"
      className="mt-8 border-t border-rule pt-3 text-sm"
      data-waiting={state.looked ? still : undefined}
    >
      <p role="status">
        {state.looked && still === 0 && refused.length === 0 && 'All you did is safe with your director.'}
        {still > 0 &&
          (state.judging || state.coming > 0
            ? 'Your take is being kept. '
            : `${count(waiting.length, told.length)} on this device. `)}
        {state.going && sending(state.going)}
        {still > 0 && state.stopped === 'offline' && 'It goes up by itself as soon as there is a network.'}
        {still > 0 && state.stopped === 'signed-out' && (
          <>
            It goes up when you{' '}
            <Link className="text-warm underline" to="/sign-in">
              sign in again
            </Link>
            .
          </>
        )}
      </p>
      {still > 0 && state.stopped === 'offline' && (
        <Button className="mt-2" onClick={() => void outbox.send()}>
          Try to send now
        </Button>
      )}
      {tight && (
        <p role="alert" className="mt-2 border-l-4 border-nearly pl-3">
          This device is almost full. Make room before you record with no network.
        </p>
      )}
      {refused.map((r) => (
        <Refused key={r.id} item={r} onThrowAway={() => void outbox.throwAway([r.id])} />
      ))}
    </section>
  )
}

/**
 * count says what is on the device in one sentence: "2 takes and one thing you told
 * are".
 */
function count(takes: number, told: number): string {
  const parts = []
  if (takes > 0) parts.push(takes === 1 ? 'One take is' : `${takes} takes are`)
  if (told > 0) parts.push(told === 1 ? 'one thing you told is' : `${told} things you told are`)
  return parts
    .join(', ')
    .replace(/^o/, 'O')
    .replace(/ (is|are), /, ' and ')
}

/** sending says how far the take that goes up has come. */
function sending({ sent, size }: { sent: number; size: number }): string {
  return `Sending: ${(sent / 1e6).toFixed(1)} of ${(size / 1e6).toFixed(1)} MB. `
}

/**
 * Refused is a take the server will not have, with its reason. Only the player throws it
 * away.
 */
function Refused({ item, onThrowAway }: { item: Item; onThrowAway: () => void }) {
  return (
    <p role="alert" className="mt-2 border-l-4 border-not-yet bg-warm-wash px-4 py-3">
      A take of {new Date(item.madeAt).toLocaleTimeString(undefined, { timeStyle: 'short' })} could not be handed in:{' '}
      {item.problem}{' '}
      <Button look="quiet" onClick={onThrowAway}>
        Throw it away
      </Button>
    </p>
  )
}
