import { useId } from 'react'

/** problem is the server's message about this choice: it stands below and is read with it. */
type Props = {
  label: string
  options: { key: string; label: string }[]
  value: string
  problem?: string
  onChange: (key: string) => void
}

/** Choice picks one of a few options. */
export function Choice({ label, options, value, problem, onChange }: Props) {
  const id = useId()
  const note = `${id}-note`
  return (
    <div>
      <label htmlFor={id} className="block text-sm text-soft">
        {label}
      </label>
      <select
        id={id}
        value={value}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? note : undefined}
        className="mt-1 min-h-11 w-full rounded-md border border-edge bg-sheet px-3 text-base aria-invalid:border-not-yet"
        onChange={(e) => onChange(e.target.value)}
      >
        {options.map((o) => (
          <option key={o.key} value={o.key}>
            {o.label}
          </option>
        ))}
      </select>
      {problem && (
        <p id={note} className="mt-1 text-sm text-not-yet">
          {problem}
        </p>
      )}
    </div>
  )
}
