import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import type { Row, SetUp } from './queries'

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
  const variants = setUp.instruments.find((i) => i.key === row.instrument)?.variants ?? []
  return (
    <form
      aria-label={row.player_id ? `Change ${row.first} ${row.last}` : 'A new player'}
      className="my-3 grid gap-3 border-l-4 border-warm pl-4 sm:grid-cols-2"
      onSubmit={(e) => {
        e.preventDefault()
        onSave()
      }}
    >
      <Field
        label="First name"
        required
        maxLength={60}
        value={row.first}
        onChange={(e) => onChange({ ...row, first: e.target.value })}
      />
      <Field
        label="Last name"
        maxLength={60}
        value={row.last}
        onChange={(e) => onChange({ ...row, last: e.target.value })}
      />
      <InstrumentChoice setUp={setUp} row={row} onChange={onChange} />
      {variants.length > 1 && (
        <Choice
          label="Built as"
          value={row.variant}
          options={variants.map((v) => ({ key: v.key, label: v.name }))}
          onChange={(variant) => onChange({ ...row, variant })}
        />
      )}
      <Choice
        label="Stage"
        value={String(row.stage)}
        options={stageOptions(setUp.stage)}
        onChange={(stage) => onChange({ ...row, stage: Number(stage) })}
      />
      <p className="flex flex-wrap items-end gap-3 sm:col-span-2">
        <Button type="submit" look="main" disabled={row.instrument === ''}>
          Save
        </Button>
        <Button look="quiet" onClick={onClose}>
          Leave it
        </Button>
        {onRemove && (
          <Button look="quiet" onClick={onRemove}>
            Take off the list (takes stay)
          </Button>
        )}
      </p>
    </form>
  )
}

type InstrumentProps = { setUp: SetUp; row: Row; problem?: string; onChange: (row: Row) => void }

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
