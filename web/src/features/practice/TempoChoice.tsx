import { Button } from '../../ui/Button'
import type { ShownStep } from './overlay'

const by = 4 // beats a minute

/** TempoChoice lets a player take a step slower or faster, as far as the director allows. */
export function TempoChoice({ step, onChange }: { step: ShownStep; onChange: (tempo: number) => void }) {
  const { tempi, score } = step
  if (!tempi) return null
  const now = score.tempo_bpm
  const set = (tempo: number) => onChange(tempo === tempi.own_bpm ? 0 : tempo)
  return (
    <fieldset className="flex flex-wrap items-center gap-3">
      <legend className="sr-only">Tempo</legend>
      <Button
        aria-label="Slower"
        disabled={now <= tempi.from_bpm}
        onClick={() => set(Math.max(tempi.from_bpm, now - by))}
      >
        slower
      </Button>
      <output className="font-serif text-lg tabular-nums" aria-live="polite">
        {now} <span className="text-sm text-soft">a minute</span>
      </output>
      <Button aria-label="Faster" disabled={now >= tempi.to_bpm} onClick={() => set(Math.min(tempi.to_bpm, now + by))}>
        faster
      </Button>
      {now !== tempi.own_bpm && (
        <Button look="quiet" onClick={() => set(tempi.own_bpm)}>
          back to {tempi.own_bpm}
        </Button>
      )}
    </fieldset>
  )
}
