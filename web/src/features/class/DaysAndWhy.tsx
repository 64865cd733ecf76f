import { Field } from '../../ui/Field'

/** From the first day to the last, both counted, and why. */
export type DaysAway = { from: string; to: string; why: string }

/** DaysAndWhy are the days on which a player is excused, and why: for whoever asks it. */
export function DaysAndWhy({ value, onChange }: { value: DaysAway; onChange: (days: DaysAway) => void }) {
  return (
    <>
      <Field
        label="Why (for you)"
        maxLength={100}
        value={value.why}
        onChange={(e) => onChange({ ...value, why: e.target.value })}
      />
      <Field
        label="From"
        type="date"
        required
        value={value.from}
        onChange={(e) => onChange({ ...value, from: e.target.value })}
      />
      <Field
        label="To"
        type="date"
        required
        min={value.from}
        value={value.to}
        onChange={(e) => onChange({ ...value, to: e.target.value })}
      />
    </>
  )
}
