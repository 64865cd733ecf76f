import type { Schemas } from '../../api/client'
import { resultWords } from '../../ui/ResultMark'
import type { View } from './view'

/** The view stands in the address, so that a narrowed board can be sent to a colleague. */
type Props = { today: Schemas['Today']; view: View; onChange: (key: keyof View, value: string | null) => void }

/** What a board can be narrowed to, the most pressing first. */
const states = ['not-yet', 'nearly', 'clean', 'cant-tell', 'missing', 'waiting'] as const

/** Filters choose what of the board is shown; the address bar keeps them. */
export function Filters({ today, view, onChange }: Props) {
  const pick = (key: keyof View, label: string, options: [string, string][]) => (
    <label className="text-sm text-soft">
      {label}{' '}
      <select
        className="min-h-9 rounded-md border border-edge bg-sheet px-2 text-ink"
        value={view[key] ?? ''}
        onChange={(e) => onChange(key, e.target.value || null)}
      >
        {options.map(([value, text]) => (
          <option key={value} value={value}>
            {text}
          </option>
        ))}
      </select>
    </label>
  )
  return (
    <div className="no-print flex flex-wrap gap-4 py-2">
      {pick('section', 'Section', [['', 'all'], ...today.sections.map((s): [string, string] => [s.name, s.name])])}
      {pick('show', 'With', [['', 'any result'], ...states.map((s): [string, string] => [s, resultWords[s]])])}
      {pick('sort', 'Order', [
        ['', 'by name'],
        ['need', 'who needs an ear first'],
      ])}
    </div>
  )
}
