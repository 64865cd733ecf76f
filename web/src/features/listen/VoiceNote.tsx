import { useEffect, useRef, useState } from 'react'
import { Failure } from '../../api/client'
import { newId } from '../../api/ids'
import { openMicrophone, type Source } from '../../ear/microphone'
import { encodeWAV } from '../../ear/wav'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'

/** onKept gets the act's number, by which the note is played and can be taken back. */
type Props = { take: string; onKept: (id: string) => void; onClose: () => void }

const longest = 60 // seconds; the server takes no more

/** VoiceNote records a spoken comment: it begins at once, and ends with Send, Esc or after a minute. */
export function VoiceNote({ take, onKept, onClose }: Props) {
  const [seconds, setSeconds] = useState(0)
  const [problem, setProblem] = useState<unknown>()
  const [sending, setSending] = useState(false)
  const open = useRef<Source>(undefined)
  const blocks = useRef<Float32Array[]>([])
  useEffect(() => {
    // The microphone may open after this has been closed; it must not stay open then.
    let left = false
    openMicrophone()
      .then((source) => {
        if (left) return source.close()
        open.current = source
        source.onBlock((_, samples) => {
          // The note ends by itself at the minute and waits to be sent: what was spoken is not lost.
          if (blocks.current.length * samples.length >= longest * source.context.sampleRate) return
          blocks.current.push(samples)
          setSeconds((blocks.current.length * samples.length) / source.context.sampleRate)
        })
      })
      .catch(setProblem)
    return () => {
      left = true
      open.current?.close()
    }
  }, [])
  async function send() {
    const source = open.current
    if (!source) return
    source.close()
    setSending(true)
    // The number is made here, so that sending again after a lost answer does not make two
    // notes.
    const id = newId()
    try {
      const response = await fetch(`/api/takes/${take}/voice/${id}`, {
        method: 'PUT',
        body: encodeWAV(blocks.current, source.context.sampleRate),
      })
      if (!response.ok) throw new Failure(response.status, await response.json())
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
