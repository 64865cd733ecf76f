import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { ParamEditor } from './ParamEditor'
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

function Form({ classId, step, onClose }: { classId: string; step: Schemas['StepDetail']; onClose: () => void }) {
  const [parameters, setParameters] = useState<Parameters>(step.parameters)
  const preview = useQuery(previewQuery(classId, step.kind.key, parameters))
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
      <div className="grid gap-4 sm:grid-cols-3">
        {step.kind.parameters.map((param) => (
          <div key={param.key} className={param.type === 'notes' ? 'sm:col-span-3' : ''}>
            <ParamEditor
              param={param}
              value={parameters[param.key]}
              choices={step.choices}
              problem={wrong[param.key]}
              onChange={(value) => setParameters({ ...parameters, [param.key]: value })}
            />
          </div>
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
      {preview.data && <WrittenTable written={preview.data.written} leftOut={preview.data.left_out} />}
    </form>
  )
}
