import { Link } from 'react-router'
import type { Schemas } from '../../api/client'

/** open leads to the take that a word was said of; a family has no takes. */
type Props = { comments: Schemas['CommentView'][]; open?: boolean }

/** Said is what directors said of a player's takes. */
export function Said({ comments, open }: Props) {
  return (
    <section>
      <h2>Comments</h2>
      {comments.length === 0 && <p className="mt-2 text-soft">Nothing yet.</p>}
      <ul className="mt-2 space-y-2">
        {comments.map((c) => (
          <li key={c.id} className="border-l-2 border-warm pl-3">
            {open ? (
              <Link to={`/take/${c.take_id}`} className="font-serif">
                {c.body}
              </Link>
            ) : (
              <p className="font-serif">{c.body}</p>
            )}
            <p className="text-xs text-soft">
              {c.by}, {new Date(c.written_at).toLocaleDateString(undefined, { dateStyle: 'medium' })}
            </p>
          </li>
        ))}
      </ul>
    </section>
  )
}
