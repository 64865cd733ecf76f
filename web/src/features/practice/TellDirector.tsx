import { useState } from 'react'
import { newId } from '../../api/ids'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Problem } from '../../ui/Problem'
import { useRaiseFlag } from './useRaiseFlag'

/** What can be told with one press, without words. */
type Kind = 'hurts' | 'dizzy' | 'tired' | 'question'

/**
 * What to do now, said at once and on the device: help must not wait for a network. It
 * defers to a doctor and to adults at hand.
 */
const after: Record<Exclude<Kind, 'question'>, string> = {
  hurts:
    'Stop for today. Rest as long as you played, and tell somebody at home. If it still hurts tomorrow, see a doctor before you play.',
  dizzy:
    'Stop, sit down and breathe normally. Do not go on until it is over. If it does not pass, tell an adult at once.',
  tired: 'Rest as long as you played. Stopping in time is part of practising.',
}

/** The words of the button that stops, the same wherever it stands. */
export const hurts = 'It hurts, or I feel dizzy'

/** TellDirector stops the step when something is wrong, and carries a question to the director. */
export function TellDirector({ stepId }: { stepId: string }) {
  const [open, setOpen] = useState<'stop' | 'question'>()
  const close = () => setOpen(undefined)
  return (
    <p className="mt-6 flex flex-wrap gap-3 border-t border-rule pt-4">
      <Button onClick={() => setOpen('stop')}>{hurts}</Button>
      <Button onClick={() => setOpen('question')}>Ask your director</Button>
      {open === 'stop' && <StopHere stepId={stepId} onClose={close} />}
      {open === 'question' && <Ask stepId={stepId} onClose={close} />}
    </p>
  )
}

/** AskDirector is the question alone, where the button that stops stands elsewhere. */
export function AskDirector({ stepId }: { stepId: string }) {
  const [open, setOpen] = useState(false)
  return (
    <p className="mt-6 border-t border-rule pt-4">
      <Button onClick={() => setOpen(true)}>Ask your director</Button>
      {open && <Ask stepId={stepId} onClose={() => setOpen(false)} />}
    </p>
  )
}

/** onClose goes back to the step. */
type Props = { stepId: string; onClose: () => void }

/** useTell tells the director, from this device on. */
function useTell(stepId: string) {
  const raise = useRaiseFlag()
  const [told, setTold] = useState<Kind>()
  const tell = (kind: Kind, words = '') =>
    // A flag has a number from here, so that one that is sent twice is raised once.
    raise.mutate({ id: newId(), kind, words, step: stepId }, { onSuccess: () => setTold(kind) })
  return { tell, told, error: raise.error, busy: raise.isPending }
}

/** StopHere asks what is wrong, tells the director, and says what to do now. */
export function StopHere({ stepId, onClose }: Props) {
  const { tell, told, error } = useTell(stepId)
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Stop here"
      // A child has to know who hears of it before pressing.
      says="Only your director sees what you press."
    >
      {!told && (
        <div className="mt-5 grid gap-3">
          {/* The gravest first; each is one press, for hands that shake. */}
          <Button size="large" onClick={() => tell('hurts')}>
            My lips, jaw or hands hurt
          </Button>
          <Button size="large" onClick={() => tell('dizzy')}>
            I feel dizzy or tingly
          </Button>
          <Button size="large" onClick={() => tell('tired')}>
            I am just tired
          </Button>
        </div>
      )}
      {/* What to do now stays until it is closed: it does not wait for the sending. */}
      {told && told !== 'question' && (
        <p className="mt-5 border-l-4 border-nearly pl-4 text-lg" role="status">
          {after[told]} Your director is told.
        </p>
      )}
      {error && <Problem error={error} />}
    </Dialog>
  )
}

/** Ask carries a question about a step to the director. */
function Ask({ stepId, onClose }: Props) {
  const { tell, told, error, busy } = useTell(stepId)
  const [words, setWords] = useState('')
  return (
    <Dialog open onOpenChange={onClose} title="Ask your director" says="About this step, in your own words.">
      {told ? (
        <p className="mt-5 text-lg" role="status">
          Kept, and on its way. Your director sees it on the class’s page.
        </p>
      ) : (
        <form
          className="mt-5"
          onSubmit={(e) => {
            e.preventDefault()
            tell('question', words)
          }}
        >
          <textarea
            aria-label="Your question"
            required
            maxLength={500}
            rows={4}
            className="w-full rounded-md border border-edge bg-sheet p-3"
            value={words}
            onChange={(e) => setWords(e.target.value)}
          />
          {error && <Problem error={error} />}
          <Button type="submit" look="main" size="large" className="mt-3" disabled={busy}>
            Send
          </Button>
        </form>
      )}
    </Dialog>
  )
}
