import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { answer, api } from '../../api/client'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { moment } from '../../ui/moment'
import { Problem } from '../../ui/Problem'

/**
 * What a player told, as the director reads it. Pain and dizziness are never only a
 * symbol.
 */
const says = {
  hurts: 'says that it hurts',
  dizzy: 'felt dizzy',
  tired: 'is tired',
  question: 'asks',
}

/** Flags are what players told and nobody has seen yet; pain comes first. */
export function Flags({ classId }: { classId: string }) {
  const queries = useQueryClient()
  const path = { class: classId }
  const key = ['flags', classId]
  const { data } = useQuery({
    queryKey: key,
    queryFn: () => answer(api.GET('/classes/{class}/flags', { params: { path } })),
    refetchInterval: 15_000,
  })
  const see = useMutation({
    mutationFn: (flag: string) =>
      answer(api.PUT('/classes/{class}/flags/{flag}/seen', { params: { path: { ...path, flag } } })),
    onSuccess: (left) => queries.setQueryData(key, left),
  })
  const tell = useMutation({
    mutationFn: ({ flag, words }: { flag: string; words: string }) =>
      answer(api.PUT('/classes/{class}/flags/{flag}/answer', { params: { path: { ...path, flag } }, body: { words } })),
    onSuccess: (left) => queries.setQueryData(key, left),
  })
  const [answering, setAnswering] = useState('')
  if (!data || data.flags.length === 0) return null
  return (
    <section aria-label="From the players" className="no-print mb-4 border-l-4 border-warm pl-4">
      <ul>
        {data.flags.map((f) => (
          <li key={f.id} className="flex items-baseline justify-between gap-4 py-1">
            <span>
              <strong>{f.player}</strong> {says[f.kind]}
              {f.words && <span className="font-serif">: “{f.words}”</span>}{' '}
              <span className="text-sm text-soft">{moment(f.raised_at)}</span>
            </span>
            <span className="flex shrink-0 gap-2">
              <Button aria-expanded={answering === f.id} onClick={() => setAnswering(answering === f.id ? '' : f.id)}>
                Answer
              </Button>
              <Button look="quiet" onClick={() => see.mutate(f.id)}>
                Seen
              </Button>
            </span>
          </li>
        ))}
        {data.flags
          .filter((f) => f.id === answering)
          .map((f) => (
            <li key={`${f.id} answer`}>
              <Answer
                name={f.player}
                busy={tell.isPending}
                error={tell.error}
                onSend={(words) => tell.mutate({ flag: f.id, words }, { onSuccess: () => setAnswering('') })}
              />
            </li>
          ))}
      </ul>
    </section>
  )
}

/** onSend tells the player, who reads it on the practice page. */
type AnswerProps = { name: string; busy: boolean; error: unknown; onSend: (words: string) => void }

/** Answer is a few words back to a player, where the question stands. */
function Answer({ name, busy, error, onSend }: AnswerProps) {
  const [words, setWords] = useState('')
  function submit(e: FormEvent) {
    e.preventDefault()
    onSend(words)
  }
  return (
    <form onSubmit={submit} className="flex flex-wrap items-end gap-3 pb-3">
      <Field
        label={`Your answer to ${name}`}
        className="grow"
        maxLength={500}
        required
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      <Button type="submit" look="main" disabled={busy}>
        Send
      </Button>
      {error !== null && <Problem error={error} />}
    </form>
  )
}
