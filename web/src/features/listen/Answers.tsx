import { type ReactNode, useEffect, useRef, useState } from 'react'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { type Result, ResultMark, resultWords } from '../../ui/ResultMark'
import { isKeyOfPage, SingleKeys } from '../../ui/singleKeys'
import type { ExcerptSound } from './useExcerptSound'
import type { Session } from './useListening'

/**
 * onWrite and onSpeak open what takes the place of the answers; quiet is while something
 * else has the keys.
 */
type Props = { session: Session; sound: ExcerptSound; onWrite: () => void; onSpeak: () => void; quiet: boolean }

/**
 * Something a director does to an excerpt: the key that does it, what stands on it, what
 * it says in the sheet of keys, and what it does.
 */
type Answer = { key: string; label: ReactNode; says: string; does: () => void }

/**
 * The director's own results on the number keys, in the order of the marks: one hand
 * stays on the keys through a listening.
 */
const words: { key: string; result: Exclude<Result, 'missing' | 'waiting' | 'failed'> }[] = [
  { key: '1', result: 'clean' },
  { key: '2', result: 'nearly' },
  { key: '3', result: 'not-yet' },
  { key: '4', result: 'cant-tell' },
]

/** Answers are everything a director can do about an excerpt, each with its key. */
export function Answers({ session, sound, onWrite, onSpeak, quiet }: Props) {
  const next = () => session.go(session.place + 1)
  const answers: Answer[] = [
    { key: ' ', label: sound.playing ? 'Stop' : 'Play again', says: 'play again, or stop', does: sound.again },
    { key: 'e', label: 'Where it happened', says: 'play from the middle of what matters', does: sound.jump },
    {
      key: 'a',
      label: 'Accept',
      says: 'accept the measured result',
      does: () => session.act({ kind: 'accept' }, 'accepting'),
    },
    {
      key: 'g',
      label: 'Ask again',
      says: 'ask for another take',
      does: () => session.act({ kind: 'again' }, 'asking again'),
    },
    { key: 'p', label: 'Praise', says: 'praise', does: () => session.act({ kind: 'praise' }, 'the praise') },
    { key: 'c', label: 'Comment', says: 'write a comment', does: onWrite },
    { key: 'v', label: 'Voice note', says: 'speak a comment', does: onSpeak },
    { key: 'n', label: 'Next', says: 'next', does: next },
    { key: 'b', label: 'Back', says: 'back', does: () => session.go(session.place - 1) },
  ]
  const overrule: Answer[] = words.map((w) => ({
    key: w.key,
    label: <ResultMark result={w.result} withWord size={14} />,
    says: `your call: ${resultWords[w.result]}`,
    does: () => session.act({ kind: 'overrule', result: w.result }, 'your word'),
  }))
  const undo: Answer = {
    key: 'u',
    label: session.last ? `Undo ${session.last.says}` : 'Undo',
    says: 'undo the last answer',
    does: session.undo,
  }
  const all = [...answers, ...overrule, undo]
  useKeys(all, quiet)
  return (
    <div className="no-print mt-4">
      <div className="flex flex-wrap gap-2">
        {answers.map((a) => (
          <Key key={a.key} answer={a} main={a.key === 'n'} />
        ))}
      </div>
      <div className="mt-3 flex flex-wrap items-center gap-2">
        <span className="text-sm text-soft">Your call</span>
        {overrule.map((a) => (
          <Key key={a.key} answer={a} />
        ))}
        <Key answer={undo} disabled={!session.last} />
        <KeySheet all={all} />
      </div>
    </div>
  )
}

/** Key shows its key, for those who learn it while they use the pointer. */
function Key({ answer: a, main = false, disabled = false }: { answer: Answer; main?: boolean; disabled?: boolean }) {
  return (
    <Button look={main ? 'main' : 'plain'} onClick={a.does} disabled={disabled} aria-keyshortcuts={a.key}>
      {a.label}
      <kbd aria-hidden className="text-xs opacity-70">
        {a.key === ' ' ? 'space' : a.key}
      </kbd>
    </Button>
  )
}

/** useKeys does what a key says, unless somebody writes. */
function useKeys(all: Answer[], quiet: boolean) {
  const now = useRef(all)
  now.current = all
  useEffect(() => {
    if (quiet) return
    const press = (e: KeyboardEvent) => {
      if (!isKeyOfPage(e)) return
      const key = { ArrowRight: 'n', ArrowLeft: 'b' }[e.key] ?? e.key
      const found = now.current.find((a) => a.key === key)
      if (!found) return
      e.preventDefault() // a pressed button would act twice
      found.does()
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [quiet])
}

/**
 * KeySheet lists every key of the page that is open, made from the answers themselves so
 * that none is forgotten.
 */
function KeySheet({ all }: { all: Answer[] }) {
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button look="quiet" onClick={() => setOpen(true)}>
        Keys
      </Button>
      <Dialog open={open} onOpenChange={setOpen} title="Keys">
        <dl className="mt-5 grid grid-cols-[5rem_1fr] gap-y-2">
          {all.map((a) => (
            <div key={a.key} className="contents">
              <dt>
                <kbd className="rounded border border-edge bg-sheet px-2 font-serif">
                  {a.key === ' ' ? 'space' : a.key}
                </kbd>
              </dt>
              <dd>{a.says}</dd>
            </div>
          ))}
        </dl>
        <SingleKeys />
      </Dialog>
    </>
  )
}
