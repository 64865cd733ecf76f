import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { upload } from '../../device/upload'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import type { ShownStep } from './overlay'
import type { NewTake } from './submit'
import { useLeaving } from './useLeaving'

/**
 * The take is in this page's memory alone; onSafe gets its number once the server has
 * it.
 */
type Props = {
  step: ShownStep
  take: NewTake
  why: string
  onSafe: (takeId: string) => void
  onRetry: () => void
  onDiscard: () => void
}

/** Unkept is a take that the device could not keep: it is here, in this page alone, until it is sent. */
export function Unkept({ step, take, why, onSafe, onRetry, onDiscard }: Props) {
  const [share, setShare] = useState(0)
  const leaving = useLeaving(true)
  const send = useMutation({
    mutationFn: async () => {
      const query = new URLSearchParams({
        step: step.id,
        version: String(step.version),
        source: take.source,
        start_ms: String(take.startMs),
      })
      await upload(take.id, query, await take.file().arrayBuffer(), (sent, size) => setShare(sent / size))
      return take.id
    },
    onSuccess: onSafe,
  })
  return (
    <section className="py-8" aria-label="Not kept yet">
      <p role="alert" className="border-l-4 border-not-yet bg-warm-wash px-4 py-3">
        {why} Do not close this page.
      </p>
      {send.isPending && (
        <p role="status" className="mt-4">
          Sending your take: {Math.round(100 * share)} % of {(take.file().size / 1e6).toFixed(1)} MB
          <progress value={share} className="mt-2 block w-full accent-warm" />
        </p>
      )}
      {send.error && <Problem error={send.error} />}
      <p className="mt-4 flex flex-wrap gap-3">
        <Button look="main" onClick={() => send.mutate()} disabled={send.isPending}>
          Send it now
        </Button>
        <Button onClick={onRetry}>Try to keep it here</Button>
        <Button look="quiet" onClick={onDiscard}>
          Throw it away
        </Button>
      </p>
      {leaving}
    </section>
  )
}
