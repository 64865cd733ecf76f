import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { answer, api } from '../../api/client'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { classesQuery } from '../signin'

/** FirstClass is where a director without a class begins. */
export default function FirstClass() {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const create = useMutation({
    mutationFn: (name: string) => answer(api.POST('/classes', { body: { name, keep: [] } })),
    onSuccess: async (made) => {
      // Straight to its set-up: a class without players can do nothing yet. Only when that page
      // is there is the list asked for anew, for with a class in it home goes to that one's board.
      await navigate(`/class/${made.class.id}/set-up`)
      await queries.invalidateQueries({ queryKey: classesQuery.queryKey })
    },
  })
  const [name, setName] = useState('')
  return (
    <form
      className="mx-auto max-w-md pt-8"
      onSubmit={(e) => {
        e.preventDefault()
        create.mutate(name)
      }}
    >
      <h1 className="text-2xl">Begin your first class</h1>
      <p className="mt-2 text-soft">
        One class is one group that warms up together. If a colleague has one for you, ask to be invited to it: that
        shows here, too.
      </p>
      <div className="mt-5">
        <Field
          label="Name of the class"
          required
          maxLength={80}
          placeholder="Beginning winds, Tuesday"
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
      </div>
      {create.error && <Problem error={create.error} />}
      <p className="mt-4">
        <Button type="submit" look="main" disabled={create.isPending}>
          Begin it
        </Button>
      </p>
    </form>
  )
}
