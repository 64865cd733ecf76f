import { useState } from 'react'
import { useNavigate } from 'react-router'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { type SetUp, useInvite, useRemoveDirector, useWithdraw } from './queries'

/** Directors lists who directs the class, asks a colleague to, and ends it. */
export function Directors({ classId, setUp }: { classId: string; setUp: SetUp }) {
  const invite = useInvite(classId)
  const withdraw = useWithdraw(classId)
  const remove = useRemoveDirector(classId)
  const navigate = useNavigate()
  const [email, setEmail] = useState('')
  const alone = setUp.directors.length === 1
  return (
    <section className="mt-8" aria-label={`Who directs ${setUp.class.name}`}>
      <h2>Who directs {setUp.class.name}</h2>
      <ul className="mt-1 max-w-md">
        {setUp.directors.map((d) => (
          <li key={d.id} className="flex min-h-10 items-center justify-between gap-4 border-b border-rule">
            {d.name}
            {/* Somebody has to direct it. */}
            {!alone && (
              <Button
                look="quiet"
                disabled={remove.isPending}
                aria-label={d.you ? 'Leave this class' : `Take ${d.name} out of this class`}
                onClick={() => remove.mutate(d.id, { onSuccess: () => d.you && navigate('/') })}
              >
                {d.you ? 'Leave' : 'Take out'}
              </Button>
            )}
          </li>
        ))}
        {setUp.invited.map((i) => (
          <li key={i.email} className="flex min-h-10 items-center justify-between gap-4 border-b border-rule text-soft">
            {i.email}, asked
            <Button
              look="quiet"
              disabled={withdraw.isPending}
              aria-label={`Take back the invitation to ${i.email}`}
              onClick={() => withdraw.mutate(i.email)}
            >
              Take back
            </Button>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex max-w-md flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault()
          invite.mutate(email, { onSuccess: () => setEmail('') })
        }}
      >
        <Field
          label="Ask a colleague, by email"
          type="email"
          required
          hint="It waits on their own page here, until they accept."
          value={email}
          onChange={(e) => setEmail(e.target.value)}
        />
        <Button type="submit" disabled={invite.isPending}>
          Ask
        </Button>
      </form>
      {(invite.error ?? withdraw.error ?? remove.error) && (
        <Problem error={invite.error ?? withdraw.error ?? remove.error} />
      )}
    </section>
  )
}
