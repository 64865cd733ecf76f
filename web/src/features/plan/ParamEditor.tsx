import type { Schemas } from '../../api/client'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import { NotePicker } from './NotePicker'
import { WrittenNotes } from './WrittenNotes'

/**
 * The parameter says its kind, range and unit; the value is of that kind, which the
 * server checks.
 */
type Props = {
  param: Schemas['Param']
  value: unknown
  choices: Schemas['NoteChoice'][]
  problem?: string
  onChange: (value: unknown) => void
}

/** ParamEditor edits one parameter of a step, as the catalogue describes it. */
export function ParamEditor({ param, value, choices, problem, onChange }: Props) {
  // "Beats each note, beats" would say it twice.
  const label = param.unit && !/beats/i.test(param.label) ? `${param.label}, ${param.unit}` : param.label
  switch (param.type) {
    case 'number':
      return (
        <Field
          label={label}
          type="number"
          min={param.min ?? 0}
          max={param.max ?? 0}
          step={param.step}
          required
          // An emptied field stays empty while the next number is typed.
          value={Number.isNaN(value) ? '' : Number(value)}
          problem={problem}
          onChange={(e) => onChange(e.target.valueAsNumber)}
        />
      )
    case 'choice':
      return (
        <Choice
          label={label}
          options={param.options ?? []}
          value={String(value)}
          problem={problem}
          onChange={onChange}
        />
      )
    case 'switch':
      return (
        <label className="flex min-h-11 items-center gap-3 self-end">
          <input
            type="checkbox"
            className="size-5"
            checked={value === true}
            onChange={(e) => onChange(e.target.checked)}
          />
          {label}
        </label>
      )
    case 'notes':
      return (
        <NotePicker
          label={param.label}
          most={param.max ?? 6}
          choices={choices}
          notes={value as number[]}
          problem={problem}
          onChange={onChange}
        />
      )
    case 'written':
      return <WrittenNotes label={label} names={value as string[]} problem={problem} onChange={onChange} />
    case 'melody':
      return <p className="text-sm text-soft">{(value as unknown[]).length} notes, as they were brought in.</p>
  }
  return <Field label={label} value={String(value)} problem={problem} onChange={(e) => onChange(e.target.value)} />
}
