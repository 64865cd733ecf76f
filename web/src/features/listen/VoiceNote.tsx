import { useState } from 'react'
import { newId } from '../../api/ids'
import { putSound } from '../../api/putSound'
import { useRecorder } from '../../ear/useRecorder'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'

/** onKept gets the act's number, by which the note is played and can be taken back. */
type Props = { take: string; onKept: (id: string) => void; onClose: () => void }

const longest = 60 // seconds; the server takes no more

/** VoiceNote records a spoken comment: it begins at once, and ends with Send, Esc or after a minute. */
export function VoiceNote({ take, onKept, onClose }: Props) {
  const { seconds, problem, setProblem, finish } = useRecorder(longest)
  const [sending, setSending] = useState(false)
  async function send() {
    const body = finish()
    if (!body) return
    setSending(true)
    // The number is made here, so that sending again after a lost answer does not make two
    // notes.
    const id = newId()
    try {
      await putSound(`/api/takes/${take}/voice/${id}`, body)
      onKept(id)
    } catch (error) {
      setProblem(error)
      setSending(false)
    }
  }
  return (
    <section
      aria-label="Voice note"
      className="mt-4 border-t border-rule pt-3"
      onKeyDown={(e) => e.key === 'Escape' && onClose()}
    >
      {problem !== undefined && <Problem error={problem} />}
      <p role="status" className="font-serif text-lg">
        Speak: {seconds.toFixed(0)} of {longest} s
      </p>
      <p className="mt-2 flex gap-3">
        {/* Half a second is a slip of the finger. */}
        <Button autoFocus look="main" disabled={sending || seconds < 0.5} onClick={() => void send()}>
          Send it
        </Button>
        <Button onClick={onClose}>Throw it away</Button>
      </p>
    </section>
  )
}
