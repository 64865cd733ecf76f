import { useState } from 'react'

/** Where the choice is kept: keys belong to the device and its hands. */
const kept = 'single-keys'

/** areKeysOn reports whether single keys do things on this device; they do until somebody says no. */
export const areKeysOn = () => localStorage.getItem(kept) !== 'off'

/**
 * isKeyOfPage reports whether a pressed key is the page's own: not one that is being written, not one
 * of the browser's, not one that presses what has the focus, and none at all where they are off.
 */
export function isKeyOfPage(e: KeyboardEvent): boolean {
  if (!areKeysOn() || e.ctrlKey || e.metaKey || e.altKey) return false
  const at = e.target
  if (!(at instanceof HTMLElement)) return true
  const written = 'textarea, select, [contenteditable], [role=dialog], [role=menu], [role=slider]'
  if (at.isContentEditable || at.closest(written)) return false
  if (at instanceof HTMLInputElement && !/^(checkbox|radio)$/.test(at.type)) return false
  const pressed = at.closest('button, a, summary, input')
  return !(pressed && (e.key === ' ' || e.key === 'Enter'))
}

/** SingleKeys switches them off, for those whom a stray key or a spoken word would cost a result. */
export function SingleKeys() {
  const [on, setOn] = useState(areKeysOn)
  return (
    <label className="mt-5 flex min-h-11 items-center gap-2">
      <input
        type="checkbox"
        className="size-5"
        checked={on}
        onChange={(e) => {
          setOn(e.target.checked)
          localStorage.setItem(kept, e.target.checked ? 'on' : 'off')
        }}
      />
      Single keys do these things on this device
    </label>
  )
}
