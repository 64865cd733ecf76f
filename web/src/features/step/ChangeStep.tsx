import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { NotePicker } from './NotePicker'
import { type Parameters, previewQuery, stepQuery, useChangeStep } from './queries'
import { WrittenTable } from './WrittenTable'

type Props = { classId: string; stepId: string; onClose: () => void }

/** ChangeStep edits a step and shows at once how every instrument reads it. */
export function ChangeStep({ classId, stepId, onClose }: Props) {
  const { data, error } = useQuery(stepQuery(classId, stepId))
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Change the step"
      says="Written once in concert pitch; every instrument follows."
    >
      {error && <Problem error={error} />}
      {!data && !error && <Waiting />}
      {data && <Form classId={classId} step={data} onClose={onClose} />}
    </Dialog>
  )
}

const numbers = [
  { field: 'beats', label: 'Beats each', min: 2, max: 16 },
  { field: 'rest_beats', label: 'Beats of rest between', min: 2, max: 16 },
  { field: 'tempo_bpm', label: 'Tempo, beats a minute', min: 40, max: 160 },
] as const

function Form({ classId, step, onClose }: { classId: string; step: Schemas['StepDetail']; onClose: () => void }) {
  const [parameters, setParameters] = useState<Parameters>(step.parameters)
  const preview = useQuery(previewQuery(classId, parameters))
  const change = useChangeStep(classId, step.id)
  const wrong = preview.error && 'fields' in preview.error ? (preview.error.fields as Record<string, string>) : {}
  return (
    <form
      className="mt-6 space-y-6"
      onSubmit={(e) => {
        e.preventDefault()
        change.mutate({ based_on_version: step.version, parameters }, { onSuccess: onClose })
      }}
    >
      <NotePicker
        choices={step.choices}
        notes={parameters.notes}
        problem={wrong.notes}
        onChange={(notes) => setParameters({ ...parameters, notes })}
      />
      <div className="grid gap-4 sm:grid-cols-3">
        {numbers.map(({ field, label, min, max }) => (
          <Field
            key={field}
            label={label}
            type="number"
            min={min}
            max={max}
            step={1}
            required
            value={Number.isNaN(parameters[field]) ? '' : parameters[field]}
            problem={wrong[field]}
            onChange={(e) => setParameters({ ...parameters, [field]: e.target.valueAsNumber })}
          />
        ))}
      </div>
      <p className="border-l-4 border-warm pl-4 font-serif text-lg" aria-live="polite">
        {preview.data?.sentence ?? step.sentence}
        {preview.data && (
          <span className="block font-sans text-sm text-soft">A take lasts {Math.round(preview.data.seconds)} s.</span>
        )}
      </p>
      {change.error && <Problem error={change.error} />}
      {preview.error && Object.keys(wrong).length === 0 && <Problem error={preview.error} />}
      <p className="flex gap-3">
        <Button type="submit" look="main" disabled={change.isPending || Boolean(preview.error)}>
          Set this step
        </Button>
        <Button look="quiet" onClick={onClose}>
          Leave it as it was
        </Button>
      </p>
      {preview.data && <WrittenTable written={preview.data.written} />}
    </form>
  )
}
