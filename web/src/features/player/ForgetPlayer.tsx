import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { answer, api } from '../../api/client'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'

/** The name has to be typed: this cannot be undone. */
type Props = { classId: string; playerId: string; name: string }

/** ForgetPlayer deletes a player for good. There is no undo, so the name has to be written. */
export function ForgetPlayer({ classId, playerId, name }: Props) {
  const [written, setWritten] = useState('')
  const queries = useQueryClient()
  const navigate = useNavigate()
  const forget = useMutation({
    mutationFn: () =>
      answer(
        api.DELETE('/classes/{class}/players/{player}', { params: { path: { class: classId, player: playerId } } }),
      ),
  })
  // What the page knew of the child goes when its report was read: before, the page would be asked
  // for somebody who is not there.
  function leave() {
    queries.clear()
    navigate(`/class/${classId}/set-up`)
  }
  if (forget.data) {
    const { takes, recordings, comments, voice_notes, backup_days } = forget.data
    return (
      <section role="status" className="mt-10 border-l-4 border-not-yet pl-3">
        <h2>{name} is deleted</h2>
        <p>
          Gone are {takes} takes with all that was measured, {recordings} recordings, {comments} comments and{' '}
          {voice_notes} voice notes. Nobody can bring them back from here.
        </p>
        <p className="mt-2">
          {backup_days > 0
            ? `Nightly backups still hold them for ${backup_days} days.`
            : 'A backup that somebody made before still holds them: ask whoever makes backups.'}
        </p>
        <p className="mt-3">
          <Button onClick={leave}>Back to the class</Button>
        </p>
      </section>
    )
  }
  return (
    <details className="no-print mt-10 border-t border-rule pt-3">
      <summary className="cursor-pointer text-sm text-soft">Delete this player for good</summary>
      <form
        className="mt-3 max-w-md space-y-3"
        onSubmit={(e) => {
          e.preventDefault()
          forget.mutate()
        }}
      >
        <p>
          Every recording, every measure and every comment is deleted, and cannot be brought back. To keep them and only
          take {name} off the list, use the class’s page.
        </p>
        <Field
          label={`Write ${name}`}
          value={written}
          onChange={(e) => setWritten(e.target.value)}
          autoComplete="off"
        />
        {forget.error && <Problem error={forget.error} />}
        <Button type="submit" disabled={written.trim() !== name || forget.isPending}>
          Delete for good
        </Button>
      </form>
    </details>
  )
}
