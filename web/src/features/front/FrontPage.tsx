import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { answer, api, type Schemas } from '../../api/client'
import { Button, buttonClass } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { useRights } from '../signin'
import { useConductor } from './conductor'
import { useFrontKeys } from './keys'
import { NowPlaying } from './NowPlaying'

/** FrontPage is the plan running at the front of the room. */
export function FrontPage() {
  const { classId = '', monday = '', day = '0' } = useParams()
  const { directs } = useRights()
  const { data, error } = useQuery({
    queryKey: ['front', classId, monday, day],
    queryFn: () =>
      answer(
        api.GET('/classes/{class}/plans/{monday}/front/{day}', {
          params: { path: { class: classId, monday, day: Number(day) } },
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY, // what is played is not changed under the band's hands
  })
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Setting the room up" />
  const back = directs ? `/class/${classId}/plan/${monday}` : `/class/${classId}`
  if (data.steps.length === 0) {
    return (
      <p className="mt-10 text-lg">
        Nothing is planned for class on {data.day}.{' '}
        <Link to={back}>{directs ? 'Back to the plan' : 'Back to the class'}</Link>
      </p>
    )
  }
  return <Front view={data} back={back} />
}

/**
 * Front is the plan on the wall of the band room: one step at a time, large enough for
 * the back row, run by one key so that both hands can conduct.
 */
function Front({ view, back }: { view: Schemas['FrontView']; back: string }) {
  const [at, setAt] = useState(0)
  const step = view.steps[at]
  const next = view.steps[at + 1]
  const go = (n: number) => {
    conductor.stop()
    setAt(Math.min(view.steps.length - 1, Math.max(0, n)))
  }
  // When a step has been played to its end the next one waits for its press: the room has to
  // settle.
  const conductor = useConductor(step, () => next && setAt(at + 1))
  // What is ticked is not counted: the next press goes on.
  const press = () => (conductor.playing || step?.ticked ? go(at + 1) : conductor.start())
  useFrontKeys({
    press,
    back: () => go(at - 1),
    pause: conductor.pause,
    tap: conductor.tap,
    drone: conductor.toggleDrone,
    faster: () => conductor.setTempo(conductor.tempo + 2),
    slower: () => conductor.setTempo(conductor.tempo - 2),
  })
  if (!step) return null
  return (
    // Over everything, the page's own head included: it is read from the back row.
    <section aria-label="Class mode" className="fixed inset-0 z-20 flex flex-col bg-paper p-6 xl:p-10">
      <header className="flex items-baseline justify-between gap-6">
        <p className="font-serif text-lg text-soft">
          {at + 1} of {view.steps.length}
        </p>
        <h1 className="text-center text-2xl">{step.name}</h1>
        <p className="font-serif text-lg tabular-nums">♩ = {Math.round(conductor.tempo)}</p>
      </header>
      {/* Without the kind's name before the colon, which stands above in large letters. */}
      <p className="text-center text-soft">{step.sentence.split(': ').slice(1).join(': ')}</p>
      {step.resting.length > 0 && <p className="text-center text-soft">Resting: {step.resting.join(', ')}</p>}
      <NowPlaying step={step} beat={conductor.beat} playing={conductor.playing} />
      <footer className="mt-4 flex flex-wrap items-center gap-2 border-t border-rule pt-3">
        <Button look="main" size="large" onClick={press}>
          {conductor.playing || step.ticked ? 'Next step' : conductor.paused ? 'Go on' : 'Start'}
        </Button>
        <Button onClick={() => go(at - 1)} disabled={at === 0}>
          Back
        </Button>
        <Button onClick={conductor.pause} disabled={!conductor.playing && !conductor.paused}>
          {conductor.paused ? 'Go on' : 'Pause'}
        </Button>
        <Button onClick={conductor.tap}>Tap the tempo</Button>
        <Button onClick={conductor.toggleDrone} aria-pressed={conductor.drone}>
          Drone {conductor.drone ? 'off' : 'on'}
        </Button>
        <span className="grow" />
        {/* Players turn to the next step's page while this one ends. */}
        {next && <span className="font-serif">Next: {next.name}</span>}
        <Link to={back} className={buttonClass()}>
          Leave
        </Link>
        <p className="w-full text-sm text-soft">
          Space, → or a clicker: start, then next. ← back, P pause, T tap, D drone, + and − tempo.
        </p>
      </footer>
    </section>
  )
}
