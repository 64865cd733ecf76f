import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import type { Row, SetUp } from './queries'

/**
 * The row is the caller's: a refused save loses nothing of what was written. onRemove is
 * left out for somebody who is not on the list yet.
 */
type Props = {
  setUp: SetUp
  row: Row
  onChange: (row: Row) => void
  onSave: () => void
  onClose: () => void
  onRemove?: () => void
}

/** stages are the choices of a player's stage. */
export const stageOptions = (byWeeks: number) => [
  { key: '0', label: `by the weeks (now ${byWeeks})` },
  ...[1, 2, 3, 4].map((s) => ({ key: String(s), label: `stage ${s}` })),
]

/** RowFields is one player being written. */
export function RowFields({ setUp, row, onChange, onSave, onClose, onRemove }: Props) {
  return (
    <form
      aria-label={row.player_id ? `Change ${row.first} ${row.last}` : 'A new player'}
      className="my-3 grid gap-3 border-l-4 border-warm pl-4 sm:grid-cols-2"
      onSubmit={(e) => {
        e.preventDefault()
        onSave()
      }}
    >
      {setUp.fields.map((field) => (
        <RowField key={field.key} field={field} setUp={setUp} row={row} onChange={onChange} />
      ))}
      <p className="flex flex-wrap items-end gap-3 sm:col-span-2">
        {/* Without an instrument nothing can be asked of a player; every other field may wait. */}
        <Button type="submit" look="main" disabled={row.instrument === ''}>
          Save
        </Button>
        <Button look="quiet" onClick={onClose}>
          Leave it
        </Button>
        {onRemove && (
          <Button look="quiet" onClick={onRemove}>
            {/* Said on the button itself, so that nobody is afraid to press it. */}
            Take off the list (takes stay)
          </Button>
        )}
      </p>
    </form>
  )
}

/** field is one of those the core lists; the form knows none by itself. */
type FieldProps = { field: SetUp['fields'][number]; setUp: SetUp; row: Row; onChange: (row: Row) => void }

/** RowField is one field of the roster, asked for as the core says. */
function RowField({ field, setUp, row, onChange }: FieldProps) {
  switch (field.form) {
    case 'instrument':
      return <InstrumentChoice setUp={setUp} row={row} onChange={onChange} />
    case 'variant':
      return <VariantChoice label={field.label} setUp={setUp} row={row} onChange={onChange} />
    case 'stage':
      return (
        <Choice
          label={field.label}
          value={String(row.stage)}
          options={stageOptions(setUp.stage)}
          onChange={(stage) => onChange({ ...row, stage: Number(stage) })}
        />
      )
  }
  return (
    <Field
      label={field.label}
      required={field.required}
      maxLength={field.most}
      value={String(row[field.key as keyof Row])}
      onChange={(e) => onChange({ ...row, [field.key]: e.target.value })}
    />
  )
}

/** onChange gets the whole row, as the other fields give it. */
type VariantProps = { label: string; setUp: SetUp; row: Row; onChange: (row: Row) => void }

/** VariantChoice is there for instruments that are built in more than one way. */
function VariantChoice({ label, setUp, row, onChange }: VariantProps) {
  const variants = setUp.instruments.find((i) => i.key === row.instrument)?.variants ?? []
  // Most instruments are built one way, and a choice of one is a question for nothing.
  if (variants.length < 2) return null
  return (
    <Choice
      label={label}
      value={row.variant}
      options={variants.map((v) => ({ key: v.key, label: v.name }))}
      onChange={(variant) => onChange({ ...row, variant })}
    />
  )
}

/** problem is what the server said of this field, shown beside it. */
type InstrumentProps = { setUp: SetUp; row: Row; problem?: string; onChange: (row: Row) => void }

/**
 * InstrumentChoice drops how the old instrument was built: the new one may not be built
 * so.
 */
export function InstrumentChoice({ setUp, row, problem, onChange }: InstrumentProps) {
  return (
    <Choice
      label="Instrument"
      value={row.instrument}
      problem={problem}
      options={[{ key: '', label: 'choose …' }, ...setUp.instruments.map((i) => ({ key: i.key, label: i.name }))]}
      onChange={(instrument) => onChange({ ...row, instrument, variant: '' })}
    />
  )
}
