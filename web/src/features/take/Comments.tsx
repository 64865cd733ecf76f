import { type FormEvent, useState } from 'react'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { SoundPlayer } from '../../ui/SoundPlayer'
import { type TakeDetail, useComment } from './queries'

const before = 0.7 // seconds ahead of what a comment is pinned to

/** onSeek lets the sound be heard where a comment is pinned, in seconds of the take. */
type Props = {
  take: TakeDetail
  directs: boolean
  /** now is where the sound stands */
  now: () => number
  onSeek: (seconds: number) => void
}

/** Comments are what was said of a take, each pinned to its moment where it has one, and the place to say more. */
export function Comments({ take, directs, now, onSeek }: Props) {
  return (
    <section>
      <h2>Comments</h2>
      <ul className="mt-2 space-y-3">
        {take.comments.map((c) => (
          <li key={c.id} className="border-l-2 border-warm pl-3">
            <p className="font-serif">
              {c.at_s !== undefined && (
                <Button className="mr-2" onClick={() => onSeek((c.at_s ?? 0) - before)}>
                  ▸ {(c.at_s - take.score_start_s).toFixed(1)} s
                </Button>
              )}
              {c.body}
            </p>
            {c.kind === 'voice' && (
              <SoundPlayer src={`/api/takes/${take.id}/voice/${c.id}.wav`} label="Voice note" preload="none" />
            )}
            <p className="text-xs text-soft">
              {c.by}, {new Date(c.written_at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })}
            </p>
          </li>
        ))}
      </ul>
      {directs && <WriteComment take={take} now={now} />}
    </section>
  )
}

/** WriteComment says something of a take, to its player. */
function WriteComment({ take, now }: Pick<Props, 'take' | 'now'>) {
  const [body, setBody] = useState('')
  const [pinned, setPinned] = useState<number>()
  const comment = useComment(take.id)
  function submit(e: FormEvent) {
    e.preventDefault()
    const at = pinned === undefined ? {} : { at_s: pinned }
    comment.mutate(
      { kind: 'comment', words: body, ...at },
      {
        onSuccess: () => {
          setBody('')
          setPinned(undefined)
        },
      },
    )
  }
  return (
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
      <label className="flex min-h-11 items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="size-5"
          checked={pinned !== undefined}
          onChange={(e) => setPinned(e.target.checked ? now() : undefined)}
        />
        pin it to {pinned === undefined ? 'where the sound is' : `${(pinned - take.score_start_s).toFixed(1)} s`}
      </label>
      {comment.error && <Problem error={comment.error} />}
      <Button type="submit" disabled={comment.isPending || body.trim() === ''}>
        Send the comment
      </Button>
    </form>
  )
}
