import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Schemas } from '../../api/client'
import { NoteChips } from '../../ui/NoteChips'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'

/** PlayerKnows is which notes one player knows: as the class, ahead of it or behind. */
export function PlayerKnows({ classId, playerId }: { classId: string; playerId: string }) {
  const queries = useQueryClient()
  const path = { class: classId, player: playerId }
  const key = ['player-knows', playerId]
  const { data, error } = useQuery({
    queryKey: key,
    queryFn: () => answer(api.GET('/classes/{class}/players/{player}/known', { params: { path } })),
  })
  const save = useMutation({
    mutationFn: (body: Schemas['Own']) =>
      answer(api.PUT('/classes/{class}/players/{player}/known', { params: { path }, body })),
    // Shown at once, so that the next press starts from this one; what is not kept is asked for again.
    onMutate: (own) =>
      queries.setQueryData(key, (before: Schemas['PlayerKnows'] | undefined) => before && { ...before, own }),
    onSuccess: (knows) => queries.setQueryData(key, knows),
    onError: () => queries.invalidateQueries({ queryKey: key }),
  })
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Opening the notes" />
  if (data.notes.length === 0) return <p className="mt-3 text-soft">This player’s instrument has no notes to know.</p>
  const ahead = data.own.ahead ?? []
  const behind = data.own.behind ?? []
  const knows = (n: Schemas['KnownNote']) => ahead.includes(n.midi) || (n.state === 'known' && !behind.includes(n.midi))
  const toggle = (n: Schemas['KnownNote']) => {
    const without = { ahead: ahead.filter((m) => m !== n.midi), behind: behind.filter((m) => m !== n.midi) }
    const wants = !knows(n)
    if (wants && n.state !== 'known') without.ahead.push(n.midi)
    if (!wants && n.state === 'known') without.behind.push(n.midi)
    save.mutate(without)
  }
  return (
    <section aria-label="Notes known" className="mt-3">
      <NoteChips
        legend="Notes this player knows, as written. The rest are as the class has them."
        notes={data.notes}
        on={knows}
        marked={(n) => (ahead.includes(n.midi) ? 'ahead' : behind.includes(n.midi) ? 'behind' : '')}
        onToggle={toggle}
      />
      {data.by_stage && <p className="mt-2 text-sm text-soft">The class keeps no list: Plan, Notes known.</p>}
      {save.error && <Problem error={save.error} />}
    </section>
  )
}
