import { useEffect, useRef, useState } from 'react'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { type HandedIn, type PracticeStep, useSend } from './queries'

type Props = { step: PracticeStep; take: HandedIn; onSafe: (takeId: string) => void; onDiscard: () => void }

/** Sending takes a recording to the server; it stays here until it is safe there. */
export function Sending({ step, take, onSafe, onDiscard }: Props) {
  const [share, setShare] = useState(0)
  const { mutate, error, isPending } = useSend(step, setShare)
  const begun = useRef('')
  useEffect(() => {
    if (begun.current === take.id) return // once, even when effects run twice
    begun.current = take.id
    mutate(take, { onSuccess: onSafe })
  }, [take, mutate, onSafe])
  return (
    <section className="py-10" aria-label="Sending">
      {isPending && (
        <p role="status">
          Sending your take: {Math.round(100 * share)} % of {(take.file.size / 1e6).toFixed(1)} MB
          <progress value={share} className="mt-2 block w-full accent-warm" />
        </p>
      )}
      {error && (
        <div className="space-y-4">
          <Problem error={error} />
          <p>Your take is still here. It is not lost.</p>
          <p className="flex gap-3">
            <Button look="main" onClick={() => mutate(take, { onSuccess: onSafe })}>
              Send it again
            </Button>
            <Button look="quiet" onClick={onDiscard}>
              Throw it away
            </Button>
          </p>
        </div>
      )}
    </section>
  )
}
