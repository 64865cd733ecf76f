import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import type { Schemas } from '../../api/client'
import { itemsOf, useOutboxState } from '../../device/useOutbox'
import type { Heard } from '../../ear/ask'
import { WideRibbon } from '../../ribbon/WideRibbon'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { type Result, ResultMark, resultWords } from '../../ui/ResultMark'
import { SoundPlayerLater } from '../../ui/SoundPlayerLater'
import { type TakeDetail, takeQuery } from '../take/queries'
import { ActionBar } from './ActionBar'
import { InARow } from './LadderRungs'
import { ReadAloud } from './ReadAloud'
import { Resting } from './Resting'
import { Cautions } from './StepSheet'
import { hurts } from './TellDirector'
import type { Holding } from './useHold'

/**
 * hold is a rest that the next try waits for; done says what comes after this step. own is the take
 * as it was recorded here, to be heard until the server has it; cautions stand after a take, too.
 */
type Props = {
  takeId: string
  own?: Blob | undefined
  /** keeping says that the take is not on the device's disk yet; early is its word until then */
  keeping?: boolean | undefined
  early?: Heard | undefined
  cautions: string[]
  onHurt: () => void
  ladder?: Schemas['Ladder'] | undefined
  hold: Holding | undefined
  onAgain: () => void
  onDone: () => void
  done: string
}

/** Word is what is told of a take: the device's at once, the server's when it is there. */
type Word = {
  verdict: Schemas['Said']
  ribbon: Schemas['Ribbon']
  result: Result
  overruled: boolean
  tuning?: string | undefined
  /** tone is said where it is not as usual: nothing is made of it, and it is no part of the word */
  tone?: string | undefined
  /** device is what the device said, where the server says something else */
  device?: Result | undefined
}

/** Outcome tells what happened: the ribbon, the verdict, the number that decided, one tip. */
export function Outcome(props: Props) {
  const { takeId, own, keeping = false, early, cautions, onHurt, ladder, hold, onAgain, onDone, done } = props
  const item = useOutboxState(itemsOf).find((i) => i.id === takeId)
  // While the take is still on this device the server has never heard of it.
  const { data: take, error } = useQuery({
    ...takeQuery(takeId),
    enabled: !keeping && (!item || item.state === 'sent'),
  })
  const word = wordOf(take, item?.take?.heard ?? early)
  const failed =
    take?.state === 'failed' ? new Error(take.failure) : item?.state === 'refused' && new Error(item.problem)
  // A word that was told already stays when the network goes.
  if (error && !word) return <Problem error={error} />
  return (
    <section aria-label="How it went" aria-live="polite" className="pt-4">
      <Heading />
      {!word && !failed && <Listening here={item?.take?.source !== 'file'} />}
      {failed && <Problem error={failed} />}
      {word && <TakeWord word={word} />}
      {take?.trial && <p className="mt-3 text-soft">A simulated player played this. It does not count.</p>}
      {word && ladder && (
        <RungPassed ladder={ladder} played={take?.score.rung ?? item?.take?.rung} result={word.result} />
      )}
      {word && ladder && <Standing ladder={ladder} />}
      {hold && <Resting hold={hold} />}
      {(word || failed) && (
        <Onward clean={word?.result === 'clean'} onAgain={onAgain} onDone={onDone} done={done} onHurt={onHurt} />
      )}
      <ListenBack own={own} takeId={take?.state === 'done' ? take.id : undefined} />
      <Cautions texts={cautions} />
    </section>
  )
}

/**
 * wordOf is the server's word once it is there, else the device's own. Where they differ
 * the server's counts, and the player is told that they did.
 */
function wordOf(take: TakeDetail | undefined, heard: Heard | undefined): Word | undefined {
  if (take?.verdict && take.ribbon) {
    const differs = take.device_result && take.device_result !== take.verdict.result
    return {
      verdict: take.verdict,
      ribbon: take.ribbon,
      // The director's word comes before the ear's.
      result: take.overruled ?? take.verdict.result,
      overruled: Boolean(take.overruled),
      tuning: take.tuning,
      tone: take.tone?.changes.some((c) => c.sure) ? take.tone.says : undefined,
      device: differs ? take.device_result : undefined,
    }
  }
  return heard && { ...heard, result: heard.verdict.result, overruled: false }
}

/** props of a take that stays nowhere: the word of this device, and what comes next */
type PassedProps = Pick<Props, 'own' | 'cautions' | 'hold' | 'onAgain' | 'onDone' | 'done' | 'onHurt'> & {
  heard: Heard | undefined | 'listening'
}

/** Passed tells how a take went that is not kept: this device judged it, and it is gone. */
export function Passed({ heard, own, cautions, hold, onAgain, onDone, done, onHurt }: PassedProps) {
  return (
    <section aria-label="How it went" aria-live="polite" className="pt-4">
      <Heading />
      {heard === 'listening' && <Listening here />}
      {heard === undefined && <p className="pt-8 text-lg">This device could not listen just now. Play it once more.</p>}
      {heard !== 'listening' && heard && (
        <TakeWord word={{ ...heard, result: heard.verdict.result, overruled: false }} />
      )}
      <p className="mt-3 text-soft">It is not kept, and no one else hears it.</p>
      {hold && <Resting hold={hold} />}
      {heard !== 'listening' && (
        <Onward
          clean={heard?.verdict.result === 'clean'}
          onAgain={onAgain}
          onDone={onDone}
          done={done}
          onHurt={onHurt}
        />
      )}
      <ListenBack own={own} />
      <Cautions texts={cautions} />
    </section>
  )
}

/** Heading is where reading goes on after a take: the recording's sheet is gone, and the focus with it. */
function Heading() {
  const heading = useRef<HTMLHeadingElement>(null)
  useEffect(() => heading.current?.focus(), [])
  return (
    <h1 ref={heading} tabIndex={-1} className="sr-only">
      How it went
    </h1>
  )
}

/** TakeWord is the word on the take, the largest thing on the page. */
function TakeWord({ word }: { word: Word }) {
  useEffect(() => void performance.mark('take-told'), []) // for benches/wait
  return (
    <>
      <p className="font-serif text-2xl" data-verdict={word.result}>
        <ResultMark result={word.result} overruled={word.overruled} withWord size={34} />
      </p>
      <p className="mt-1 text-lg">{word.verdict.sentence}</p>
      {word.device && (
        <p className="mt-1 text-sm text-soft" data-testid="differs">
          This device had heard “{resultWords[word.device]}”. The second listening counts.
        </p>
      )}
      {word.ribbon.tracks.length > 0 && (
        <div className="mt-4 border-y border-rule bg-sheet py-2">
          <WideRibbon ribbon={word.ribbon} height={190} plain />
        </div>
      )}
      <p className="mt-4 border-l-4 border-warm pl-3 text-lg">{word.verdict.tip.text}</p>
      {word.tuning && <p className="mt-2 border-l-4 border-rule pl-3">{word.tuning}</p>}
      {word.tone && <p className="mt-2 text-sm text-soft">{word.tone}</p>}
      <ReadAloud texts={[resultWords[word.result], word.verdict.sentence, word.verdict.tip.text, word.tuning ?? '']} />
    </>
  )
}

/** What comes next first: after a clean take that is the next step, otherwise another try. */
type OnwardProps = Pick<Props, 'onAgain' | 'onDone' | 'done' | 'onHurt'> & { clean: boolean }

/** Onward is the two ways on, the likelier one first and large in colour. */
function Onward({ clean, onAgain, onDone, done, onHurt }: OnwardProps) {
  const again = (
    <Button
      key="again"
      look={clean ? 'plain' : 'main'}
      size="large"
      className="grow px-4 sm:grow-0"
      data-key="r"
      onClick={onAgain}
    >
      Again
    </Button>
  )
  const next = (
    <Button
      key="next"
      look={clean ? 'main' : 'plain'}
      size="large"
      className="grow px-4 sm:grow-0"
      data-key="n"
      onClick={onDone}
    >
      {done}
    </Button>
  )
  return (
    <div className="mt-6">
      <ActionBar>
        <p className="mt-2 flex flex-wrap items-stretch gap-2">
          {clean ? [next, again] : [again, next]}
          <Button className="w-full sm:w-auto" onClick={onHurt}>
            {hurts}
          </Button>
        </p>
      </ActionBar>
    </div>
  )
}

/** ListenBack plays one's own take: out of this page's memory until the server has it. Hearing oneself is worth more than any drawing. */
function ListenBack({ own, takeId }: { own: Blob | undefined; takeId?: string | undefined }) {
  const [here, setHere] = useState('')
  useEffect(() => {
    if (!own) return
    let address = ''
    // Behind the word: the browser takes milliseconds over it.
    const soon = setTimeout(() => {
      address = URL.createObjectURL(own)
      setHere(address)
    })
    return () => {
      clearTimeout(soon)
      URL.revokeObjectURL(address)
    }
  }, [own])
  const src = here || (takeId && `/api/takes/${takeId}/audio.wav`)
  if (!src) return null
  return (
    <div className="mt-5">
      <SoundPlayerLater src={src} label="Your take" preload="none" />
    </div>
  )
}

/** played is the rung the take was of; the ladder stands where it led. */
type RungProps = { ladder: Schemas['Ladder']; played: number | undefined; result: Result }

/** RungPassed cheers when a take passed its rung: that is the moment to. */
function RungPassed({ ladder, played, result }: RungProps) {
  if (result !== 'clean' || !played || ladder.rung <= played) return null
  return (
    <p className="mt-4 rounded-md border-2 border-clean bg-sheet p-4 font-serif text-xl">
      <span aria-hidden className="mr-2 text-clean">
        ✓
      </span>
      You passed rung {played}: {ladder.rungs[played - 1]}!
      {ladder.reached && <span className="block text-base">And that was the goal of this ladder. Well done.</span>}
    </p>
  )
}

/** Listening keeps the place of the word, so that nothing moves when it comes. */
function Listening({ here }: { here: boolean }) {
  return (
    <p className="min-h-64 pt-16 text-center font-serif text-xl">
      {here ? 'Listening …' : 'Kept. It is listened to when it has gone up.'}
    </p>
  )
}

/** Standing is where the player is on the ladder now, and how many clean takes in a row there are. */
function Standing({ ladder }: { ladder: Schemas['Ladder'] }) {
  return (
    <p className="mt-3 flex flex-wrap items-center gap-x-3 text-soft">
      <InARow ladder={ladder} />
      <span>{ladderLine(ladder)}</span>
    </p>
  )
}

/** ladderLine says where the player stands and what it takes to go on. */
function ladderLine(l: Schemas['Ladder']): string {
  if (l.capped) return 'That is enough of this ladder for today.'
  const needs = l.needs === 1 ? 'one more clean passes it' : `${l.needs} clean in a row pass it`
  return `Rung ${l.rung}, ${l.rungs[l.rung - 1] ?? ''}: ${needs}.`
}
