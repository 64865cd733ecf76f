import { useQuery } from '@tanstack/react-query'
import { WideRibbon } from '../../ribbon/WideRibbon'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { ResultMark } from '../../ui/ResultMark'
import { SoundPlayer } from '../../ui/SoundPlayer'
import { takeQuery } from '../take'

type Props = { takeId: string; onAgain: () => void; onDone: () => void; done: string }

/** Outcome tells what happened: the ribbon, the verdict, the number that decided, one tip. */
export function Outcome({ takeId, onAgain, onDone, done }: Props) {
  const { data: take, error } = useQuery(takeQuery(takeId))
  if (error) return <Problem error={error} />
  return (
    <section aria-label="How it went" aria-live="polite" className="pt-4">
      {(!take || take.state === 'waiting') && (
        <p className="min-h-64 pt-16 text-center font-serif text-xl">Listening …</p>
      )}
      {take?.state === 'failed' && <Problem error={new Error(take.failure)} />}
      {take?.verdict && take.ribbon && (
        <>
          <p className="font-serif text-2xl" data-verdict={take.verdict.result}>
            <ResultMark
              result={take.overruled ?? take.verdict.result}
              overruled={Boolean(take.overruled)}
              withWord
              size={34}
            />
          </p>
          <p className="mt-1 text-lg">{take.verdict.sentence}</p>
          <div className="mt-4 border-y border-rule bg-sheet py-2">
            <WideRibbon ribbon={take.ribbon} height={190} />
          </div>
          <p className="mt-4 border-l-4 border-warm pl-3 text-lg">{take.verdict.tip.text}</p>
          {take.tuning && <p className="mt-2 border-l-4 border-rule pl-3">{take.tuning}</p>}
        </>
      )}
      {take && take.state !== 'waiting' && (
        <p className="mt-6 flex flex-wrap gap-3">
          <Button look="main" size="large" onClick={onAgain}>
            Again
          </Button>
          <Button size="large" onClick={onDone}>
            {done}
          </Button>
        </p>
      )}
      {take?.state === 'done' && (
        <div className="mt-5">
          <SoundPlayer src={`/api/takes/${take.id}/audio.wav`} label="Your take" preload="none" />
        </div>
      )}
    </section>
  )
}
