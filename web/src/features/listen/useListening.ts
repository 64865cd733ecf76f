import { useQueryClient, useSuspenseQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { resultWords } from '../../ui/ResultMark'
import { takeQuery } from '../take/queries'
import {
  type Act,
  type Done,
  type Excerpt,
  type Listening,
  listeningQuery,
  useAct,
  useKeepPlace,
  useTakeKept,
  useUndo,
} from './queries'

/** Session is a listening under way. */
export type Session = {
  listening: Listening
  place: number
  excerpt: Excerpt | undefined
  /** spent is how many seconds of the minutes are used */
  spent: number
  go: (place: number) => void
  act: (act: Act, says: string) => void
  undo: () => void
  /** remember keeps an act that was done elsewhere, and shows it */
  remember: (done: Done) => void
  /** last is the latest act that can be undone */
  last: Done | undefined
  problem: unknown
  /** said is what was done last, in words: read out, and shown */
  said: string
}

const keepEvery = 5 // seconds

/** useListening goes through the excerpts, keeps the place and the time, and remembers what can be undone. */
export function useListening(classId: string): Session {
  const { data: listening } = useSuspenseQuery(listeningQuery(classId))
  const [place, setPlace] = useState(Math.min(listening.place, listening.excerpts.length))
  const [spent, setSpent] = useState(listening.spent_s)
  const [done, setDone] = useState<Done[]>([])
  const { mutate: keep } = useKeepPlace(classId)
  const act = useAct(classId)
  const undo = useUndo(classId)
  const kept = useTakeKept(classId)
  const queries = useQueryClient()
  const [said, setSaid] = useState('')
  const excerpt = listening.excerpts[place]
  // The timer below reads both without being set up anew each second.
  const now = useRef({ place, spent })
  now.current = { place, spent }

  // The time runs while somebody is here to listen.
  useEffect(() => {
    if (!excerpt) return
    const timer = setInterval(() => {
      if (document.visibilityState !== 'visible') return
      setSpent((s) => s + 1)
      if (Math.round(now.current.spent) % keepEvery === 0)
        keep({ place: now.current.place, spent_s: now.current.spent })
    }, 1000)
    return () => clearInterval(timer)
  }, [excerpt, keep])

  const go = (to: number) => {
    const next = Math.max(0, Math.min(listening.excerpts.length, to))
    keep({ place: next, spent_s: spent, ...(excerpt && { listened: excerpt.take }) })
    setPlace(next)
    const at = listening.excerpts[next]
    setSaid(at ? `${next + 1} of ${listening.excerpts.length}: ${at.name}. ${at.why[0]?.text ?? ''}` : 'All heard.')
  }
  return {
    listening,
    place,
    excerpt,
    spent,
    go,
    act: (what, says) => {
      if (!excerpt) return
      act.mutate(
        { take: excerpt.take, act: what },
        // Only what the server has taken can be undone.
        {
          onSuccess: ({ id }) => {
            setDone((d) => [...d, { id, take: excerpt.take, says }])
            setSaid(`${acted(what)}: ${excerpt.name}.`)
          },
        },
      )
    },
    undo: () => {
      const last = done.at(-1)
      if (last) {
        const undone = () => {
          setDone((d) => d.slice(0, -1))
          setSaid(`Undone: ${last.says}.`)
        }
        undo.mutate(last, { onSuccess: undone })
      }
    },
    remember: (what) => {
      setDone((d) => [...d, what])
      setSaid(`Sent: ${what.says}.`)
      // The take is asked for again: a voice note changes what was said of it, and the act's own
      // answer is not here.
      void queries.fetchQuery({ ...takeQuery(what.take), staleTime: 0 }).then(kept)
    },
    last: done.at(-1),
    problem: act.error ?? undo.error,
    said,
  }
}

/** acted says what an act did. */
function acted(act: Act): string {
  switch (act.kind) {
    case 'accept':
      return 'Accepted'
    case 'again':
      return 'Asked for another take'
    case 'praise':
      return 'Praised'
    case 'overrule':
      return `Your call, ${resultWords[act.result ?? 'cant-tell']}`
  }
  return 'Comment sent'
}
