import { useEffect, useId, useState } from 'react'
import { useNavigate } from 'react-router'
import { Dialog } from '../../ui/Dialog'
import { type Found, foundOf } from './found'
import { usePlaces } from './usePlaces'

/** SearchSheet is a line to write in and what it finds, chosen by arrows and Enter or by a press. */
export default function SearchSheet({ onClose }: { onClose: () => void }) {
  const [words, setWords] = useState('')
  const [at, setAt] = useState(0)
  const navigate = useNavigate()
  const list = useId()
  const { places, coming } = usePlaces()
  const found = foundOf(places, words)
  // Enter before the lists are here is kept, and done when they are.
  const [chosen, setChosen] = useState(false)
  const go = (place?: Found) => {
    if (!place) return
    onClose()
    void navigate(place.to)
  }
  const press = (e: React.KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[e.key]
    if (by) {
      e.preventDefault()
      setAt((n) => (n + by + found.length) % Math.max(1, found.length))
    }
    if (e.key === 'Enter') setChosen(true)
  }
  useEffect(() => {
    if (!chosen || (coming && !found[at])) return
    setChosen(false)
    go(found[at])
  })
  return (
    <Dialog open onOpenChange={onClose} title="Search" says="A player, an exercise or a page.">
      <input
        autoFocus
        role="combobox"
        aria-label="What to look for"
        aria-expanded={found.length > 0}
        aria-controls={list}
        aria-activedescendant={found[at] && `${list}-${at}`}
        className="mt-4 min-h-12 w-full rounded-md border border-edge bg-sheet px-3 text-lg"
        value={words}
        onChange={(e) => {
          setWords(e.target.value)
          setAt(0)
          setChosen(false)
        }}
        onKeyDown={press}
      />
      <div role="listbox" id={list} aria-label="Found" className="mt-3" tabIndex={-1}>
        {found.map((f, n) => (
          // biome-ignore lint/a11y/useKeyWithClickEvents: the keys are the field's
          <div
            key={f.to}
            role="option"
            id={`${list}-${n}`}
            aria-selected={n === at}
            tabIndex={-1}
            className="flex min-h-11 cursor-pointer items-baseline justify-between gap-4 rounded px-3 py-2 aria-selected:bg-band aria-selected:outline-2 aria-selected:outline-warm"
            onClick={() => go(f)}
            onMouseMove={() => setAt(n)}
          >
            <span className="font-serif text-lg">{f.name}</span>
            <span className="text-sm text-soft">{f.what}</span>
          </div>
        ))}
      </div>
      <p role="status" className="mt-3 text-soft">
        {words && found.length === 0 && nothing(coming)}
      </p>
    </Dialog>
  )
}

const nothing = (coming: boolean) =>
  coming ? 'The lists are still coming.' : 'Nothing has this name. Try fewer letters.'
