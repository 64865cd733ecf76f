import { Button } from '../../ui/Button'
import type { Loop } from './useLoop'

/** LoopControls mark a stretch by where the sound is, and play it over and over. */
export function LoopControls({ loop }: { loop: Loop }) {
  const label =
    loop.from === undefined
      ? 'Loop from here'
      : loop.to === undefined
        ? 'to here'
        : `looping ${(loop.to - loop.from).toFixed(1)} s`
  return (
    <>
      <Button aria-pressed={loop.to !== undefined} onClick={loop.mark}>
        {label}
      </Button>
      {loop.from !== undefined && (
        <Button look="quiet" onClick={loop.clear}>
          No loop
        </Button>
      )}
    </>
  )
}
