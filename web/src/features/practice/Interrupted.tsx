import type { Recorded } from '../../ear/recorder'
import { Button } from '../../ui/Button'

/** Seconds: less than a breath is nothing to hand in. */
const worthIt = 2 // seconds

/** Interrupted says what ended a take early, and keeps what there is of it. */
export function Interrupted({ why, partial, onHandIn }: { why: string; partial: Recorded; onHandIn: () => void }) {
  const seconds = partial.sound.length / partial.sound.rate
  return (
    <div role="alert" className="mb-3 border-l-4 border-nearly pl-4">
      <p>
        {why} The take ended after {seconds.toFixed(0)} s. Your earlier takes are as they were.
      </p>
      {seconds >= worthIt && (
        <Button className="mt-2" onClick={onHandIn}>
          Hand in what there is
        </Button>
      )}
    </div>
  )
}
