import { useState } from 'react'

/** Where the answer is kept: it is the device's, not a person's. */
const kept = 'shared-device'

/** SharedDevice asks whether others use this device, and remembers the answer on it. */
export function SharedDevice() {
  const [shared, setShared] = useState(() => isShared())
  return (
    <label className="flex min-h-11 items-center gap-3">
      <input
        type="checkbox"
        name="shared"
        className="size-6 shrink-0"
        checked={shared}
        onChange={(e) => {
          setShared(e.target.checked)
          localStorage.setItem(kept, e.target.checked ? 'yes' : 'no')
        }}
      />
      Others use this device too: sign me out when I am away for half an hour
    </label>
  )
}

/** isShared is what this device answered last. */
export const isShared = () => localStorage.getItem(kept) === 'yes'
