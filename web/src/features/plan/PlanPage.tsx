import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { newId } from '../../api/ids'
import { mondayOf, weekdayOf } from '../../ui/days'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { ClassHead } from '../class'
import { CatalogueList } from './CatalogueList'
import { DayStrip } from './DayStrip'
import { DayTotals } from './DayTotals'
import { useDraft } from './draft'
import { useKeys } from './keys'
import { PlanBar } from './PlanBar'
import { type At, catalogueQuery, dayQuery, type Item, type Kind, type Plan, planQuery } from './queries'
import { Saved } from './Saved'
import { StepEditor } from './StepEditor'
import { dayKeys } from './weeks'

const today = () => new Date().toLocaleDateString('sv') // 2026-11-25

/** PlanPage is a class's week: the catalogue, the day's steps, and the step in hand. */
export function PlanPage() {
  const { classId = '', monday = mondayOf(today()) } = useParams()
  const plan = useQuery(planQuery(classId, monday))
  const catalogue = useQuery(catalogueQuery)
  const error = plan.error ?? catalogue.error
  if (error) return <Problem error={error} />
  if (!plan.data || !catalogue.data) return <Waiting what="Opening the plan" />
  return (
    <>
      <ClassHead classId={classId} name={plan.data.class.name} school={plan.data.class.school} at="plan" />
      <Desk
        // A draft belongs to one week: with another week comes another desk.
        key={`${classId}/${monday}`}
        classId={classId}
        plan={plan.data}
        kinds={catalogue.data.kinds}
        choices={catalogue.data.choices}
      />
    </>
  )
}

/** A week that has loaded, and the kinds and notes it may ask for. */
type DeskProps = {
  classId: string
  plan: Plan
  kinds: Kind[]
  choices: React.ComponentProps<typeof StepEditor>['choices']
}

/**
 * Desk is where a week is planned: the catalogue, the day, the step in hand. Everything
 * on it is a draft that saves itself.
 */
function Desk({ classId, plan, kinds, choices }: DeskProps) {
  const draft = useDraft(classId, plan)
  const navigate = useNavigate()
  const [search, setSearch] = useSearchParams()
  const [at, setAt] = useState<At>('class')
  // This week opens at today, any other at its Monday.
  const [day, setDay] = useState(() => (mondayOf(plan.today) === plan.monday ? weekdayOf(plan.today) : 0))
  const dayKey = dayKeys[day] ?? 'MO'
  const ofDay = draft.items.filter((i) => i.days.includes(dayKey) && (i.at === at || i.at === 'both'))
  const work = useQuery(dayQuery(classId, plan.monday, ofDay, at))
  // The address opens a step and follows; it comes a moment after the page, and whoever types
  // at once would type into the last step's fields.
  const [inHand, setInHand] = useState(search.get('step'))
  // There is always a step in hand where the day has one: an empty third column says
  // nothing.
  const chosen = draft.items.find((i) => i.key === inHand) ?? ofDay[0]
  const choose = (key: string) => {
    setInHand(key)
    // Replaced and not pushed: the way back leads out of the plan, not through every step that
    // was looked at.
    setSearch({ step: key }, { replace: true })
  }
  const edit = (item: Item) => draft.change(draft.items.map((i) => (i.key === item.key ? item : i)))
  const remove = (key: string) => draft.change(draft.items.filter((i) => i.key !== key))
  const add = (...items: Item[]) => {
    draft.change([...draft.items, ...items])
    // What was added is in hand at once: its parameters are the next thing anybody looks at.
    if (items[0]) choose(items[0].key)
  }
  /** reorder puts the day's items into an order, in the places they had among all. */
  const reorder = (keys: string[]) => {
    const moved = keys.map((k) => ofDay.find((i) => i.key === k)).filter((i) => i !== undefined)
    draft.change(draft.items.map((i) => (ofDay.includes(i) ? (moved.shift() ?? i) : i)))
  }
  /** teach puts the new note's own steps on the day in view and the school days behind it. */
  const teach = () => {
    const kind = kinds.find((k) => k.key === newNote)
    if (!kind || draft.items.some((i) => i.kind === newNote)) return
    add({
      ...newItem(kind.key, opening(plan, kind), dayKey, at),
      days: [dayKey, ...dayKeys.slice(day + 1, 5)],
      wanted: 3,
    })
  }
  useKeys(draft)
  // Whoever comes from the search with an exercise has it on the day at once.
  const asked = kinds.find((k) => k.key === search.get('add'))
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each that is asked for
  useEffect(() => {
    if (asked) add(newItem(asked.key, opening(plan, asked), dayKey, at))
  }, [asked])
  return (
    <>
      <PlanBar
        classId={classId}
        plan={plan}
        draft={draft}
        day={day}
        at={at}
        ofDay={ofDay}
        onDay={setDay}
        onAt={setAt}
        onWeek={(monday) => navigate(`/class/${classId}/plan/${monday}`)}
        onAdd={add}
        onNew={teach}
      />
      <Saved draft={draft} plan={plan} />
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 lg:grid-cols-[11rem_minmax(0,1fr)_minmax(0,28rem)]">
        <CatalogueList
          kinds={kinds}
          longTone={plan.long_tone}
          onAdd={(kind) => add(newItem(kind.key, opening(plan, kind), dayKey, at))}
          onAddOwn={(own) => add({ ...newItem(own.kind, own.parameters, dayKey, at), called: own.name })}
        />
        <section aria-label="The day's steps">
          <DayTotals work={work.data} problem={work.error} />
          <DayStrip
            items={ofDay}
            kinds={kinds}
            work={work.data}
            chosen={chosen?.key}
            onChoose={choose}
            onReorder={reorder}
            onRemove={remove}
          />
        </section>
        {chosen && (
          <StepEditor
            key={chosen.key}
            classId={classId}
            monday={plan.monday}
            today={plan.today}
            item={chosen}
            kind={kinds.find((k) => k.key === chosen.kind)}
            band={plan.band}
            choices={choices}
            onChange={edit}
            onRemove={() => remove(chosen.key)}
          />
        )}
      </div>
    </>
  )
}

/** newNote is the kind that teaches the week's new note. */
const newNote = 'new-note'

/** opening is what a step of a kind opens with in this class. */
function opening(plan: Plan, kind: Kind): Item['parameters'] {
  const own = plan.opens.find((o) => o.kind === kind.key)
  return own?.parameters ?? Object.fromEntries(kind.parameters.map((p) => [p.key, p.default]))
}

/**
 * newItem is a new step. What is planned in class is usually wanted at home too, so it
 * stands in both.
 */
function newItem(kind: string, parameters: Item['parameters'], day: string, at: At): Item {
  return {
    key: newId(),
    kind,
    parameters,
    times: 1,
    days: [day],
    at: at === 'class' ? 'both' : at,
    wanted: 2,
    pinned: false,
    for: [],
    why: '',
  }
}
