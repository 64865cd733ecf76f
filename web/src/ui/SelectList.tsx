import { getNonce } from 'get-nonce'
import { Select as Radix } from 'radix-ui'

/** label is read, and stands before the choice unless it is hidden; values are never empty. */
export type Props = {
  label: string
  value: string
  onChange: (value: string) => void
  options: { value: string; label: string }[]
  showLabel?: boolean
}

/** SelectList is one choice among several, in a list that opens over the page. */
export function SelectList({ label, value, onChange, options, showLabel = false }: Props) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: Radix's trigger is the control
    <label className="inline-flex max-w-full flex-wrap items-center gap-2">
      {showLabel && <span>{label}</span>}
      <Radix.Root value={value} onValueChange={onChange}>
        <Radix.Trigger
          aria-label={label}
          className="inline-flex min-h-11 max-w-full items-center gap-3 rounded-md border border-edge bg-sheet px-3 text-left"
        >
          <span className="truncate">
            <Radix.Value />
          </span>
          <Radix.Icon aria-hidden>▾</Radix.Icon>
        </Radix.Trigger>
        <Radix.Portal>
          <Radix.Content
            position="popper"
            sideOffset={4}
            className="z-40 max-h-[60vh] overflow-hidden rounded-md border border-edge bg-sheet shadow-xl"
          >
            <Radix.Viewport className="p-1" nonce={getNonce() ?? ''}>
              {options.map((o) => (
                <Radix.Item
                  key={o.value}
                  value={o.value}
                  className="flex min-h-11 cursor-pointer items-center gap-3 rounded px-3 data-[highlighted]:bg-band data-[highlighted]:outline-2 data-[highlighted]:outline-warm"
                >
                  <Radix.ItemText>{o.label}</Radix.ItemText>
                  <Radix.ItemIndicator aria-hidden>✓</Radix.ItemIndicator>
                </Radix.Item>
              ))}
            </Radix.Viewport>
          </Radix.Content>
        </Radix.Portal>
      </Radix.Root>
    </label>
  )
}
