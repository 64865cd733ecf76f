import { type FormEvent, useState } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'

/** onSend says whether the words are kept among the director's own phrases. */
type Props = {
  phrases: Schemas['PhraseView'][]
  /** at is where the sound stands, to pin the comment to */
  at: () => number
  onSend: (words: string, at: number | undefined, phrase: boolean) => void
  onClose: () => void
}

/** CommentBox takes a comment: typed, or one of the director's own phrases by Alt and its number. */
export function CommentBox({ phrases, at, onSend, onClose }: Props) {
  const [words, setWords] = useState('')
  const [pinned, setPinned] = useState<number>()
  const [keep, setKeep] = useState(false)
  function submit(e: FormEvent) {
    e.preventDefault()
    if (words.trim()) onSend(words.trim(), pinned, keep)
  }
  return (
    <form
      onSubmit={submit}
      className="mt-4 border-t border-rule pt-3"
      onKeyDown={(e) => {
        if (e.key === 'Escape') onClose()
        // Enter alone is a new line; a comment of two sentences must not go off at the first.
        if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) submit(e)
        // Digits alone are words of a comment, so phrases are had with Alt.
        const phrase = e.altKey ? phrases[Number(e.key) - 1] : undefined
        if (phrase) {
          e.preventDefault()
          setWords(phrase.words)
        }
      }}
    >
      <label htmlFor="words" className="text-sm text-soft">
        Comment <span className="text-xs">(Ctrl and Enter sends, Esc leaves)</span>
      </label>
      <textarea
        id="words"
        // biome-ignore lint/a11y/noAutofocus: it was asked for by its key
        autoFocus
        rows={2}
        maxLength={1000}
        className="mt-1 w-full rounded-md border border-edge bg-sheet p-3"
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      {phrases.length > 0 && (
        <ol aria-label="Your phrases" className="mt-1 flex flex-wrap gap-1.5">
          {phrases.slice(0, 9).map((p, n) => (
            <li key={p.id}>
              <Button onClick={() => setWords(p.words)}>
                {p.words}
                <kbd className="text-xs opacity-70">Alt {n + 1}</kbd>
              </Button>
            </li>
          ))}
        </ol>
      )}
      <p className="mt-2 flex flex-wrap items-center gap-4">
        <Button type="submit" look="main" disabled={words.trim() === ''}>
          Send
        </Button>
        <label className="flex min-h-11 items-center gap-2 text-sm">
          <input
            type="checkbox"
            className="size-5"
            checked={pinned !== undefined}
            // The moment of the tick, while the sound may go on.
            onChange={(e) => setPinned(e.target.checked ? at() : undefined)}
          />
          pin it to {pinned === undefined ? 'where the sound is' : `${pinned.toFixed(1)} s`}
        </label>
        <label className="flex min-h-11 items-center gap-2 text-sm">
          <input type="checkbox" className="size-5" checked={keep} onChange={(e) => setKeep(e.target.checked)} />
          keep as a phrase
        </label>
      </p>
    </form>
  )
}
