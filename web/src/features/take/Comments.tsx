import { type FormEvent, useState } from 'react'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { type TakeDetail, useComment } from './queries'

export function Comments({ take }: { take: TakeDetail }) {
  const [body, setBody] = useState('')
  const comment = useComment(take.id)
  function submit(e: FormEvent) {
    e.preventDefault()
    comment.mutate(body, { onSuccess: () => setBody('') })
  }
  return (
    <section>
      <h2>Comments</h2>
      <ul className="mt-2 space-y-3">
        {take.comments.map((c) => (
          <li key={c.written_at + c.body} className="border-l-2 border-warm pl-3">
            <p className="font-serif">{c.body}</p>
            <p className="text-xs text-soft">
              {c.by}, {new Date(c.written_at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })}
            </p>
          </li>
        ))}
      </ul>
      <form onSubmit={submit} className="no-print mt-3">
        <label htmlFor="comment" className="text-sm text-soft">
          To {take.player.split(' ')[0]}
        </label>
        <textarea
          id="comment"
          value={body}
          onChange={(e) => setBody(e.target.value)}
          rows={3}
          maxLength={1000}
          className="mt-1 w-full rounded-md border border-edge bg-sheet p-3"
        />
        {comment.error && <Problem error={comment.error} />}
        <Button type="submit" disabled={comment.isPending || body.trim() === ''}>
          Send the comment
        </Button>
      </form>
    </section>
  )
}
