import { useQuery } from '@tanstack/react-query'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { invitationsQuery, useAnswerInvitation } from './queries'

/** Invitations are the classes a director is asked to direct; nothing where there are none. */
export function Invitations() {
  const { data } = useQuery(invitationsQuery)
  const answer = useAnswerInvitation()
  if (!data || data.length === 0) return null
  return (
    <section aria-label="Invitations" className="mb-4 border-l-4 border-warm pl-4">
      {data.map((i) => (
        <p key={i.class} className="flex flex-wrap items-center gap-3 py-1">
          {i.by} asks you to direct {i.name} at {i.school}.
          <Button
            look="main"
            disabled={answer.isPending}
            onClick={() => answer.mutate({ class: i.class, accept: true })}
          >
            Accept
          </Button>
          <Button disabled={answer.isPending} onClick={() => answer.mutate({ class: i.class, accept: false })}>
            No, thank you
          </Button>
        </p>
      ))}
      {answer.error && <Problem error={answer.error} />}
    </section>
  )
}
