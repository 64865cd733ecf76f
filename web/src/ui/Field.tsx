import { type ComponentProps, useId } from 'react'

/**
 * problem is the server's message about this field: it stands beside it and is read with
 * it.
 */
type Props = ComponentProps<'input'> & { label: string; hint?: string; problem?: string }

/** Field is a labelled input that says what is wrong with it. */
export function Field({ label, hint, problem, className = '', ...rest }: Props) {
  const id = useId()
  const note = `${id}-note`
  return (
    <div className={className}>
      <label htmlFor={id} className="block text-sm text-soft">
        {label}
      </label>
      <input
        id={id}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem || hint ? note : undefined}
        className="mt-1 min-h-11 w-full rounded-md border border-edge bg-sheet px-3 text-base aria-invalid:border-not-yet"
        {...rest}
      />
      {(problem || hint) && (
        <p id={note} className={`mt-1 text-sm ${problem ? 'text-not-yet' : 'text-soft'}`}>
          {problem ?? hint}
        </p>
      )}
    </div>
  )
}
