import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, api } from '../../api/client'
import { Button } from '../../ui/Button'
import { moment } from '../../ui/moment'

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
            <Button look="quiet" onClick={() => see.mutate(f.id)}>
              Seen
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
