import type { Schemas } from '../../api/client'
import { SoundPlayerLater } from '../../ui/SoundPlayerLater'

/** What an older version of the page kept has no answers in it. */
type Props = { comments: Schemas['CommentView'][]; answers?: Schemas['DirectorsAnswer'][] }

/** FromDirector are the director's latest comments, and answers to what was asked. */
export function FromDirector({ comments, answers = [] }: Props) {
  if (comments.length === 0 && answers.length === 0) return null
  return (
    <section className="mt-8 border-t border-rule pt-3">
      <h2>From your director</h2>
      <ul className="mt-2 space-y-3">
        {answers.map((a) => (
          <li key={a.id} className="border-l-2 border-warm pl-3">
            {a.asked && <p className="text-sm text-soft">You asked: “{a.asked}”</p>}
            <p className="font-serif">{a.answer}</p>
            <p className="text-xs text-soft">{a.by}</p>
          </li>
        ))}
        {comments.map((c) => (
          <li key={c.id} className="border-l-2 border-warm pl-3">
            <p className="font-serif">{c.body}</p>
            {c.kind === 'voice' && (
              <SoundPlayerLater src={`/api/takes/${c.take_id}/voice/${c.id}.wav`} label="Voice note" preload="none" />
            )}
            <p className="text-xs text-soft">
              {c.by},{' '}
              {new Date(c.written_at).toLocaleDateString(undefined, { weekday: 'long', day: 'numeric', month: 'long' })}
            </p>
          </li>
        ))}
      </ul>
    </section>
  )
}
