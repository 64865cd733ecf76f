import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import type { Playing } from './useFreePlay'

/** playing is where listening stands. */
type Props = { playing: Playing; onStart: () => void; onStop: () => void }

/** ListenButton begins and ends to listen. */
export function ListenButton({ playing, onStart, onStop }: Props) {
  if (playing.at === 'listening')
    return (
      <Button size="large" onClick={onStop}>
        Stop listening
      </Button>
    )
  return (
    <>
      <Button size="large" look="main" disabled={playing.at === 'opening'} onClick={onStart}>
        {playing.at === 'opening' ? 'Opening the microphone …' : 'Start listening'}
      </Button>
      {playing.problem !== undefined && <Problem error={playing.problem} />}
    </>
  )
}
