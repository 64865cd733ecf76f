import { useQuery } from '@tanstack/react-query'
import { lazy, Suspense, useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { targetsOf } from '../../api/score'
import { FingeringDiagram } from '../../notation/FingeringDiagram'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { SoundPlayer } from '../../ui/SoundPlayer'
import { Excerpt } from './Excerpt'
import { KeepOwn } from './KeepOwn'
import { OwnPlaying } from './OwnPlaying'
import { ParamEditor } from './ParamEditor'
import { type Item, type Kind, type Member, notationQuery, soundOf } from './queries'
import { TestTerms } from './TestTerms'
import { dayKeys, dayNames } from './weeks'

/** The engraver is 76 kB: it comes when a step is looked at, not with the page. */
const Bars = lazy(() => import('../../notation/Bars'))

/** kind is missing while the catalogue loads; band is whom the class has. */
type Props = {
  classId: string
  monday: string
  today: string
  item: Item
  kind?: Kind
  band: Member[]
  choices: Schemas['NoteChoice'][]
  onChange: (item: Item) => void
  onRemove: () => void
}

/** StepEditor is the step in hand: what it asks, when and for whom, and how any instrument reads it. */
export function StepEditor({ classId, monday, today, item, kind, band, choices, onChange, onRemove }: Props) {
  const [of, setOf] = useState(0)
  const member = band[of]
  const notation = useQuery({
    ...notationQuery(classId, monday, item, member ?? nobody),
    enabled: member !== undefined,
  })
  // What is wrong with the parameters comes with the notation: the server reads the step to
  // engrave it, so that the editor has no rules of its own to fall out of step.
  const wrong = notation.error && 'fields' in notation.error ? (notation.error.fields as Record<string, string>) : {}
  // An older plan may hold a kind that the catalogue is still on its way with.
  if (!kind) return null
  const set = (key: string, value: unknown) => onChange({ ...item, parameters: { ...item.parameters, [key]: value } })
  return (
    <section
      aria-label={`The step: ${kind.name}`}
      className="min-w-0 border-t border-rule pt-3 lg:border-t-0 lg:border-l lg:pt-0 lg:pl-6"
    >
      <h2>{item.called || kind.name}</h2>
      {item.called && <p className="text-sm text-soft">{kind.name}</p>}
      {/* A director who did not train on this instrument reads here what the step is for. */}
      <p className="text-sm text-soft">{kind.why}</p>
      <div className="mt-3 grid grid-cols-2 gap-3">
        {kind.parameters.map((param) => (
          <div key={param.key} className={['notes', 'melody', 'written'].includes(param.type) ? 'col-span-2' : ''}>
            {param.type === 'melody' ? (
              <Excerpt classId={classId} item={item} onChange={onChange} />
            ) : (
              <ParamEditor
                param={param}
                value={item.parameters[param.key]}
                choices={choices}
                problem={wrong[param.key]}
                onChange={(value) => set(param.key, value)}
              />
            )}
          </div>
        ))}
      </div>
      {/* A problem of one field stands at that field; only what has no field stands here. */}
      {notation.error && Object.keys(wrong).length === 0 && <Problem error={notation.error} />}
      {member && (
        <>
          <div className="mt-4">
            <Choice
              label="As read by"
              value={String(of)}
              options={band.map((m, n) => ({
                key: String(n),
                label: `${m.name}${m.variant ? `, ${m.variant}` : ''}, stage ${m.stage} (${m.players})`,
              }))}
              onChange={(n) => setOf(Number(n))}
            />
          </div>
          {notation.data && <AsRead notation={notation.data} member={member} />}
          {member.fingered && (
            <p className="mt-2 text-sm">
              <Link
                to={`/class/${classId}/fingerings/${member.instrument}${member.variant ? `/${member.variant}` : ''}`}
              >
                All fingerings, {member.name}
              </Link>
            </p>
          )}
          {notation.data?.suits && targetsOf(notation.data.score).length > 0 && !notation.error && (
            <div className="mt-3">
              <SoundPlayer
                src={soundOf(classId, monday, item, member)}
                label={`How ${member.name} sounds`}
                preload="none"
              />
            </div>
          )}
        </>
      )}
      {kind.ticked || <OwnPlaying key={`${item.key} model`} classId={classId} item={item} band={band} />}
      <KeepOwn key={item.key} item={item} onChange={onChange} />
      <Placement
        classId={classId}
        monday={monday}
        today={today}
        item={item}
        band={band}
        onChange={onChange}
        onRemove={onRemove}
      />
    </section>
  )
}

/** A member for a class without players, so that the editor need not ask. */
const nobody: Member = { instrument: '', variant: '', name: '', section: '', stage: 1, players: 0, fingered: false }

/**
 * AsRead is the step as one instrument of the class reads it, engraved, with each
 * fingering once.
 */
function AsRead({ notation, member }: { notation: Schemas['StepNotation']; member: Member }) {
  if (!notation.suits) return <p className="mt-3 text-soft">This step is not for {member.name}.</p>
  const { score } = notation
  const targets = targetsOf(score)
  // The fingerings of a chromatic walk would be the same dozen over and over.
  const once = targets.filter((t, n) => targets.findIndex((u) => u.written_name === t.written_name) === n)
  return (
    <div className="mt-3">
      {targets.length > 0 && (
        <Suspense fallback={<div className="h-28" />}>
          <Bars
            score={score}
            bars={notation.bars}
            width={400}
            says={`${notation.sentence}, as read by ${member.name}: ${targets.map((t) => t.written_name).join(', ')}`}
          />
        </Suspense>
      )}
      {/* Steps that are ticked and not played have things to do instead of notes. */}
      {score.items.length > 0 && score.ticked && (
        <ul className="list-inside list-disc text-sm">
          {score.items.map((i) => (
            <li key={i}>{i}</li>
          ))}
        </ul>
      )}
      <ul className="mt-2 flex flex-wrap gap-3 text-center text-sm">
        {once.map((t) => (
          <li key={t.start_beat} className="min-w-14">
            {t.fingering && <FingeringDiagram fingering={t.fingering} />}
            <span className="block font-serif">{t.written_name}</span>
            <span className="block text-xs text-soft">{t.fingering?.text}</span>
            {t.hard && <span className="block text-xs text-soft">hard</span>}
          </li>
        ))}
      </ul>
      {/* What the core had to change for this instrument: a note out of range, a breath that does not
          reach. */}
      {score.notices.map((n) => (
        <p key={n} className="mt-1 text-sm text-soft">
          {n}
        </p>
      ))}
      {/* Cautions stand by the step itself: the director reads them before any child does. */}
      <ul className="mt-2 border-l-4 border-nearly pl-3 text-xs">
        {score.cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
    </div>
  )
}

/** What says when, where, how often and for whom a step is. */
type PlacementProps = {
  classId: string
  monday: string
  today: string
  item: Item
  band: Member[]
  onChange: (item: Item) => void
  onRemove: () => void
}

/** Placement is when, where, how often, for whom, and how much it is wanted. */
function Placement({ classId, monday, today, item, band, onChange, onRemove }: PlacementProps) {
  const toggle = (list: string[], key: string) => (list.includes(key) ? list.filter((k) => k !== key) : [...list, key])
  // The band lists an instrument once for each stage; here stages make no difference.
  const instruments = band.filter((m, n) => band.findIndex((o) => o.instrument === m.instrument) === n)
  return (
    <div className="mt-4 border-t border-rule pt-3">
      <fieldset>
        <legend className="text-sm text-soft">On</legend>
        <div className="flex flex-wrap gap-1">
          {dayKeys.map((key, n) => (
            <label
              key={key}
              className="flex min-h-9 min-w-9 cursor-pointer items-center justify-center rounded-md border border-edge text-sm has-checked:border-ink has-checked:bg-ink has-checked:text-paper"
            >
              <input
                type="checkbox"
                className="sr-only"
                checked={item.days.includes(key)}
                // Kept in the week's order whatever the order they were pressed in.
                onChange={() => onChange({ ...item, days: dayKeys.filter((k) => toggle(item.days, key).includes(k)) })}
              />
              <span aria-hidden>{dayNames[n]?.slice(0, 2)}</span>
              <span className="sr-only">{dayNames[n]}</span>
            </label>
          ))}
        </div>
      </fieldset>
      <div className="mt-3 grid grid-cols-3 gap-3">
        <Choice
          label="Where"
          value={item.at}
          options={[
            { key: 'both', label: 'class and home' },
            { key: 'class', label: 'class' },
            { key: 'home', label: 'home' },
          ]}
          onChange={(at) => onChange({ ...item, at: at as Item['at'] })}
        />
        <Field
          label="Times through"
          type="number"
          min={1}
          max={6}
          value={item.times}
          onChange={(e) =>
            // An emptied field is not sent: it is on its way to being another number.
            e.target.valueAsNumber >= 1 && onChange({ ...item, times: Math.min(6, e.target.valueAsNumber) })
          }
        />
        <Choice
          label="How much wanted"
          value={String(item.wanted)}
          options={[
            { key: '3', label: 'must' },
            { key: '2', label: 'usual' },
            { key: '1', label: 'if there is room' },
          ]}
          onChange={(wanted) => onChange({ ...item, wanted: Number(wanted) })}
        />
      </div>
      <details className="mt-3 text-sm">
        <summary className="cursor-pointer text-soft">
          {item.for.length === 0 ? 'For everyone it suits' : `Only for ${item.for.length} instruments`}
        </summary>
        <div className="mt-2 grid grid-cols-2 gap-1">
          {instruments.map((m) => (
            <label key={m.instrument} className="flex min-h-8 items-center gap-2">
              <input
                type="checkbox"
                checked={item.for.includes(m.instrument)}
                onChange={() => onChange({ ...item, for: toggle(item.for, m.instrument) })}
              />
              {m.name}
            </label>
          ))}
        </div>
      </details>
      <div className="mt-3">
        <Field
          label="Why, in a line to the players"
          maxLength={200}
          value={item.why}
          onChange={(e) => onChange({ ...item, why: e.target.value })}
        />
      </div>
      <TestTerms classId={classId} monday={monday} today={today} item={item} onChange={onChange} />
      <p className="mt-3 flex flex-wrap items-center gap-4 text-sm">
        <label className="flex min-h-10 items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={item.pinned}
            onChange={(e) => onChange({ ...item, pinned: e.target.checked })}
          />
          Pin it: never cut to fit
        </label>
        <Button look="quiet" onClick={onRemove}>
          Take it off the plan
        </Button>
      </p>
    </div>
  )
}
