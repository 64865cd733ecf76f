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
    onSuccess: () => {
      queries.clear()
      navigate(`/class/${classId}/set-up`)
    },
  })
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
