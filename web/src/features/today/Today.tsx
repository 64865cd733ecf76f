import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import type { Schemas } from '../../api/client'
import { RibbonLegend } from '../../ribbon/RibbonLegend'
import { Button, buttonClass } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { longDay, mondayOf, shifted, weekdayOf } from '../../ui/days'
import { PrintButton } from '../../ui/PrintButton'
import { Problem } from '../../ui/Problem'
import { ResultMark, resultWords } from '../../ui/ResultMark'
import { useInAppLinks } from '../../ui/useInAppLinks'
import { Waiting } from '../../ui/Waiting'
import { ClassHead } from '../class'
import { PlayerActs } from '../player/PlayerActs'
import { type Rights, useRights } from '../signin'
import { TestLines } from '../tests/TestLines'
import { BoardRow, denseFrom } from './BoardRow'
import { Common } from './Common'
import { Filters } from './Filters'
import { Flags } from './Flags'
import { Guessed } from './Guessed'
import { todayQuery } from './queries'
import { StepName, StepResults } from './StepHead'
import { Tomorrow } from './Tomorrow'
import { useLive } from './useLive'
import { shownOf, type View, viewOf } from './view'

/** Today is the class at a glance: players by section, the day's steps across. */
export function Today() {
  const { classId = '' } = useParams()
  const [search, setSearch] = useSearchParams()
  const view = viewOf(search)
  const change = (key: keyof View, value: string | null) =>
    setSearch((now) => {
      // The choice stands in the address: a reload or the way back from a take finds the board
      // as it was left.
      const next = new URLSearchParams(now)
      if (value) next.set(key, value)
      else next.delete(key)
      return next
    })
  // A take that is heard shows on the board by itself: it hangs on the wall during the
  // lesson.
  useLive(classId)
  const { data, error, isPlaceholderData } = useQuery(todayQuery(classId, search.get('day') ?? undefined))
  const rights = useRights()
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Opening the board" />
  return (
    // The day before stays in view, dimmed, until the next one is there.
    <div className={isPlaceholderData ? 'opacity-60' : ''}>
      <DayHead today={data} />
      {rights.directs && (
        <>
          <Guessed classId={data.class.id} tries={data.guessed} />
          <Flags classId={data.class.id} />
          <TestLines classId={data.class.id} />
        </>
      )}
      {data.steps.length === 0 ? (
        <p className="mt-8 border-t border-rule pt-6 text-soft">
          Nothing is planned for this day.{' '}
          {rights.directs && (
            <Link className="underline" to={`/class/${data.class.id}/plan/${mondayOf(data.day)}`}>
              Plan it
            </Link>
          )}
        </p>
      ) : (
        <>
          <div className="grid gap-x-10 gap-y-3 border-t border-rule py-3 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
            <Common common={data.common} chosen={view.common} onChoose={(key) => change('common', key)} />
            {/* Looking back at a past day, a proposal for tomorrow would only be in the way. */}
            {rights.directs && data.day === data.today && <Tomorrow classId={data.class.id} />}
          </div>
          <div className="flex flex-wrap items-center justify-between gap-x-8">
            <Filters today={data} view={view} onChange={change} />
            <Legend simulated={isSimulated(data)} />
          </div>
          <Board today={data} view={view} rights={rights} />
        </>
      )}
      <details className="no-print mt-8 border-t border-rule pt-3">
        <summary className="cursor-pointer text-sm text-soft">How to read a ribbon</summary>
        <div className="pt-2">
          <RibbonLegend />
        </div>
      </details>
    </div>
  )
}

/** DayHead is the class and the day, with the days before and after. */
function DayHead({ today }: { today: Schemas['Today'] }) {
  const [, setSearch] = useSearchParams()
  const isToday = today.day === today.today
  const go = (days: number) => setSearch({ day: shifted(today.day, days) })
  return (
    <div className="pb-4">
      <ClassHead
        classId={today.class.id}
        name={today.class.name}
        school={`${today.class.school} · class code ${today.class.code}`}
        at="today"
      />
      <nav aria-label="Day" className="flex flex-wrap items-center gap-2">
        <Button aria-label="The day before" onClick={() => go(-1)}>
          ←
        </Button>
        <p className="min-w-44 text-center font-serif" aria-live="polite">
          {isToday ? 'Today, ' : ''}
          {longDay(today.day)}
        </p>
        {/* Nothing has been played on days to come; what is planned for them is on the plan's page. */}
        <Button aria-label="The day after" onClick={() => go(1)} disabled={isToday}>
          →
        </Button>
        <span className="ml-auto">
          <PrintButton />
        </span>
        {today.steps.length > 0 && (
          <Link
            className={`${buttonClass()} no-print`}
            to={`/class/${today.class.id}/front/${mondayOf(today.day)}/${weekdayOf(today.day)}`}
          >
            Play with the class
          </Link>
        )}
      </nav>
    </div>
  )
}

/** Widths of the board in rem: of the players' names, and of a step at least. */
const nameWidth = 11
const narrowest = 5.5

/** Board is a table in the page's own words: a screen reader walks it by row and column. */
function Board({ today, view, rights }: { today: Schemas['Today']; view: View; rights: Rights }) {
  const shown = shownOf(today, view)
  const steps = today.steps.length
  const [acts, setActs] = useState<Schemas['PlayerRow']>()
  // One listener for the links of a thousand cells, in the place of a thousand.
  const table = useInAppLinks<HTMLTableElement>()
  return (
    // Columns are as wide whatever stands in them: the board holds still while its drawings come.
    // On a narrow screen it is pushed along in a box of its own, where the names of the steps stay in sight too.
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a box that is pushed along is reached by the keyboard
    <section aria-label="The board" tabIndex={0} className="max-lg:max-h-[85vh] max-lg:overflow-auto">
      <table
        ref={table}
        className="w-full table-fixed border-collapse"
        style={{ minWidth: `${nameWidth + steps * narrowest}rem` }}
      >
        <caption className="sr-only">Players by section, with each one’s latest take of every step</caption>
        <colgroup>
          <col style={{ width: `${nameWidth}rem` }} />
          {today.steps.map((s) => (
            <col key={s.id} />
          ))}
        </colgroup>
        {/* Names of the steps stay in sight down to the tubas. */}
        <thead className="sticky top-0 z-10 bg-paper shadow-[inset_0_1px_0_var(--ink),inset_0_-1px_0_var(--ink)]">
          <tr className="align-top">
            <th scope="col" className="py-2 pr-4 text-left font-serif font-normal text-soft">
              Player
            </th>
            {today.steps.map((s) => (
              <th key={s.id} scope="col" className="py-2 pr-3 text-left align-top font-normal">
                <StepName
                  classId={today.class.id}
                  day={today.day}
                  step={s}
                  dense={steps >= denseFrom}
                  changes={rights.directs}
                />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr className="border-b border-ink align-top">
            <th scope="row" className="py-2 pr-4 text-left font-normal text-soft">
              {today.sections.reduce((sum, s) => sum + s.played, 0)} of {countPlayers(today)} played
            </th>
            {today.steps.map((s) => (
              <td key={s.id} className="py-2 pr-3">
                <StepResults step={s} players={countPlayers(today)} dense={steps >= denseFrom} />
              </td>
            ))}
          </tr>
        </tbody>
        {shown.map((section) => (
          <tbody key={section.name}>
            <tr>
              <th
                scope="rowgroup"
                colSpan={1 + today.steps.length}
                className="pt-4 pb-1 text-left font-serif text-lg font-normal"
              >
                {rights.directs ? (
                  <Link
                    className="decoration-edge underline-offset-4 hover:underline"
                    to={`/class/${today.class.id}/section/${encodeURIComponent(section.name)}`}
                  >
                    {section.name}
                  </Link>
                ) : (
                  section.name
                )}{' '}
                <span className="font-sans text-sm text-soft">
                  {section.played} of {countOf(today, section.name)} played
                </span>
              </th>
            </tr>
            {section.players.map((p) => (
              <BoardRow key={p.id} player={p} classId={today.class.id} rights={rights} onActs={setActs} />
            ))}
          </tbody>
        ))}
        {shown.length === 0 && (
          <tbody>
            <tr>
              <td colSpan={1 + today.steps.length} className="py-6 text-soft">
                Nobody fits this choice. Show all sections and any result to see everybody.
              </td>
            </tr>
          </tbody>
        )}
      </table>
      {acts && (
        <Dialog open onOpenChange={() => setActs(undefined)} title={acts.name} says={acts.instrument}>
          <div className="mt-4">
            <PlayerActs classId={today.class.id} playerId={acts.id} name={acts.name} today={today.today} />
          </div>
        </Dialog>
      )}
    </section>
  )
}

/** Legend says what each mark is: on a full board they stand without words. */
function Legend({ simulated }: { simulated: boolean }) {
  return (
    <ul aria-label="Marks" className="no-print flex flex-wrap gap-x-4 text-sm text-soft">
      {simulated && <li>Simulated players made these takes.</li>}
      {(['clean', 'nearly', 'not-yet', 'cant-tell', 'missing'] as const).map((r) => (
        <li key={r} className="flex items-center gap-1.5">
          <ResultMark result={r} size={14} silent /> {resultWords[r]}
        </li>
      ))}
    </ul>
  )
}

/** isSimulated says whether what was played is all of simulated players: of the demo, or of a class that tries things out. */
function isSimulated(today: Schemas['Today']): boolean {
  const played = today.sections.flatMap((s) => s.players.flatMap((p) => p.cells)).filter((c) => c.take_id)
  return played.length > 0 && played.every((c) => c.simulated)
}

/** countOf is how many a section has, filtered or not. */
function countOf(today: Schemas['Today'], section: string): number {
  return today.sections.find((s) => s.name === section)?.players.length ?? 0
}

/** countPlayers is how many the class has. */
function countPlayers(today: Schemas['Today']): number {
  return today.sections.reduce((sum, s) => sum + s.players.length, 0)
}
