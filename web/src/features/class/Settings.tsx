import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { HardNotes } from './HardNotes'
import { type Conventions, exampleQuery, type SetUp, useSaveSettings } from './queries'

/**
 * What is saved of the settings, all at once: half a change of conventions would be a
 * third school.
 */
type Body = Schemas['SettingsInputBody']

/** Settings are what a class follows, with an example that shows the effect at once. */
export function Settings({ classId, setUp }: { classId: string; setUp: SetUp }) {
  const [form, setForm] = useState<Body>({
    name: setUp.class.name,
    first_lesson: setUp.first_lesson,
    class_minutes: setUp.class_minutes,
    home_minutes: setUp.home_minutes,
    keep_days: setUp.keep_days,
    keep_voice_days: setUp.keep_voice_days,
    keep_measures_days: setUp.keep_measures_days,
    ...(setUp.simulated_players === 'demo' ? {} : { simulated_players: setUp.simulated_players }),
    conventions: setUp.conventions,
    tips: setUp.own_tips,
  })
  const save = useSaveSettings(classId)
  const set = (conventions: Partial<Conventions>) =>
    setForm({ ...form, conventions: { ...form.conventions, ...conventions } })
  // The two minutes differ in nothing but their words and whether nought is an answer.
  const number = (key: 'class_minutes' | 'home_minutes', label: string, hint?: string) => (
    <Field
      label={label}
      type="number"
      min={key === 'class_minutes' ? 1 : 0}
      max={60}
      hint={hint}
      // An emptied number field is NaN until the next digit; the server says so if it is saved
      // like that.
      value={Number.isNaN(form[key]) ? '' : form[key]}
      onChange={(e) => setForm({ ...form, [key]: e.target.valueAsNumber })}
    />
  )
  const days = (key: 'keep_days' | 'keep_voice_days' | 'keep_measures_days', label: string, hint: string, min = 0) => (
    <Field
      label={label}
      type="number"
      min={min}
      max={3650}
      hint={hint}
      value={Number.isNaN(form[key] ?? Number.NaN) ? '' : form[key]}
      onChange={(e) => setForm({ ...form, [key]: e.target.valueAsNumber })}
    />
  )
  return (
    <form
      className="grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_24rem]"
      onSubmit={(e) => {
        e.preventDefault()
        save.mutate(form)
      }}
    >
      <div>
        <div className="grid gap-4 sm:grid-cols-2">
          <Field
            label="Name of the class"
            required
            value={form.name}
            onChange={(e) => setForm({ ...form, name: e.target.value })}
          />
          <Field
            label="First lesson"
            type="date"
            hint="Stages count the school weeks from here; a player’s own stage goes first."
            value={form.first_lesson}
            onChange={(e) => setForm({ ...form, first_lesson: e.target.value })}
          />
          {number('class_minutes', 'Minutes for the warm-up in class')}
          {number('home_minutes', 'Minutes at home', '0 is the stage’s usual: 10, 15, then 20.')}
          {days('keep_days', 'Days recordings are kept', 'Then the sound is deleted; what was measured stays.', 7)}
          {days('keep_voice_days', 'Days voice notes are kept', '0: as long as recordings.')}
          {days(
            'keep_measures_days',
            'Days measures are kept',
            '0: as long as the class. Then the whole take is deleted.',
          )}
          <Field
            label="A in Hz"
            type="number"
            min={430}
            max={450}
            step={0.5}
            value={Number.isNaN(form.conventions.a4_hz) ? '' : form.conventions.a4_hz}
            onChange={(e) => set({ a4_hz: e.target.valueAsNumber })}
          />
          <Field
            label="How far players may change a tempo, %"
            type="number"
            min={0}
            max={40}
            hint="Slower or faster than you ask; 0 keeps them to yours."
            value={Number.isNaN(form.conventions.tempo_give) ? '' : form.conventions.tempo_give}
            onChange={(e) => set({ tempo_give: e.target.valueAsNumber })}
          />
          <Field
            label="Beats of a new long tone"
            type="number"
            min={2}
            max={16}
            value={Number.isNaN(form.conventions.long_beats) ? '' : form.conventions.long_beats}
            onChange={(e) => set({ long_beats: e.target.valueAsNumber })}
          />
          <Choice
            label="Names of notes"
            value={form.conventions.naming}
            options={[
              { key: 'english', label: 'C D E, B♭ and B' },
              { key: 'german', label: 'C D E, B and H' },
              { key: 'romance', label: 'do re mi' },
            ]}
            onChange={(naming) => set({ naming: naming as Conventions['naming'] })}
          />
          {setUp.schools.map((s) => (
            <Choice
              key={s.key}
              label={s.question}
              value={String(form.conventions[s.key as keyof Conventions])}
              options={s.options}
              onChange={(answer) => set({ [s.key]: answer })}
            />
          ))}
        </div>
        <Tolerances setUp={setUp} conventions={form.conventions} onChange={(tolerances) => set({ tolerances })} />
        <HardNotes setUp={setUp} conventions={form.conventions} onChange={(hard) => set({ hard })} />
        {setUp.simulated_players !== 'demo' && (
          <label className="mt-5 flex min-h-11 items-start gap-3">
            <input
              type="checkbox"
              className="mt-1 size-5"
              checked={form.simulated_players === 'tried'}
              onChange={(e) => setForm({ ...form, simulated_players: e.target.checked ? 'tried' : 'no' })}
            />
            <span>
              Players may try the program with a simulated player
              <span className="block text-sm text-soft">Such a take is marked and counts for nothing.</span>
            </span>
          </label>
        )}
        <DeviceWord word={setUp.device_word} />
        {save.error && <Problem error={save.error} />}
        <p className="mt-5 flex items-center gap-4">
          <Button type="submit" look="main" disabled={save.isPending}>
            Save
          </Button>
          <span className="text-sm text-soft" aria-live="polite">
            {save.isSuccess && 'Saved. New takes follow it; takes already heard keep their word.'}
          </span>
        </p>
      </div>
      <Example classId={classId} setUp={setUp} conventions={form.conventions} />
    </form>
  )
}

/** DeviceWord says how often players were told one thing at once and another after the second listening. */
function DeviceWord({ word }: { word: SetUp['device_word'] }) {
  if (word.takes === 0) return null
  return (
    <p className="mt-5 text-sm text-soft">
      In the last month players’ own devices judged {word.takes} takes at once; the second listening said otherwise on{' '}
      {word.differ}.
    </p>
  )
}

/**
 * onChange gets the tolerances that are the director's own; a stage that is left out
 * keeps ours.
 */
type ToleranceProps = { setUp: SetUp; conventions: Conventions; onChange: (t: Conventions['tolerances']) => void }

/** Tolerances are the class's own limits by stage, where they differ. */
function Tolerances({ setUp, conventions, onChange }: ToleranceProps) {
  const columns = [
    { key: 'centre_cents', label: 'in tune, ± cents', step: 1 },
    { key: 'waver_cents', label: 'wobble, ± cents', step: 1 },
    { key: 'drift_cents', label: 'start to end, cents', step: 1 },
    { key: 'level_db', label: 'loudness to the end, dB', step: 1 },
    { key: 'start_s', label: 'start, s', step: 0.01 },
    { key: 'change_s', label: 'change, s', step: 0.01 },
    { key: 'held_ratio', label: 'share held', step: 0.05 },
  ] as const
  // Limits are kept only where they differ, so that ours can be bettered later for everybody
  // else.
  const own = conventions.tolerances ?? {}
  return (
    <details className="mt-5">
      <summary className="cursor-pointer">Tolerances by stage</summary>
      <div className="overflow-x-auto">
        <table className="mt-2 border-collapse text-sm">
          <thead>
            <tr className="text-left text-soft">
              <th className="pr-4 font-normal">Stage</th>
              {columns.map((c) => (
                <th key={c.key} className="pr-4 font-normal">
                  {c.label}
                </th>
              ))}
              {/* The last column has a button or nothing, and still needs a name to be walked by. */}
              <th className="sr-only">Ours</th>
            </tr>
          </thead>
          <tbody>
            {setUp.usual.map(({ stage, limits }) => {
              // The first change of one limit takes the stage's other limits with it: a stage is judged
              // as a whole.
              // A stage changed before there were so many limits takes the missing ones from ours.
              const changed = own[stage]
              const now = changed
                ? {
                    ...changed,
                    drift_cents: changed.drift_cents || limits.drift_cents,
                    level_db: changed.level_db || limits.level_db,
                    start_s: changed.start_s || limits.start_s,
                  }
                : limits
              return (
                <tr key={stage}>
                  <th scope="row" className="text-left font-normal">
                    {stage}
                  </th>
                  {columns.map((c) => (
                    <td key={c.key} className="py-1 pr-4">
                      <input
                        type="number"
                        aria-label={`Stage ${stage}, ${c.label}`}
                        step={c.step}
                        className="min-h-9 w-20 rounded-md border border-edge bg-sheet px-2"
                        value={Number.isNaN(now[c.key]) ? '' : now[c.key]}
                        onChange={(e) => onChange({ ...own, [stage]: { ...now, [c.key]: e.target.valueAsNumber } })}
                      />
                    </td>
                  ))}
                  <td>
                    {own[stage] && (
                      <Button
                        look="quiet"
                        onClick={() =>
                          onChange(Object.fromEntries(Object.entries(own).filter(([k]) => k !== String(stage))))
                        }
                      >
                        As usual
                      </Button>
                    )}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </div>
    </details>
  )
}

/**
 * Example shows at once what the answers above make of one instrument and stage. The
 * core works it out; nothing is saved by looking.
 */
function Example({ classId, setUp, conventions }: { classId: string; setUp: SetUp; conventions: Conventions }) {
  const [instrument, setInstrument] = useState(setUp.players[0]?.instrument ?? 'trumpet')
  // The class's own stage and its first player's instrument: the example most likely to be
  // recognised.
  const [stage, setStage] = useState<number>(setUp.stage)
  const example = useQuery(exampleQuery(classId, conventions, instrument, stage))
  return (
    <aside aria-label="Example" className="border-t border-rule pt-4 lg:border-t-0 lg:border-l lg:pt-0 lg:pl-6">
      <h2>Example</h2>
      <div className="mt-2 grid grid-cols-2 gap-3">
        <Choice
          label="Instrument"
          value={instrument}
          options={setUp.instruments.map((i) => ({ key: i.key, label: i.name }))}
          onChange={setInstrument}
        />
        <Choice
          label="Stage"
          value={String(stage)}
          options={[1, 2, 3, 4].map((s) => ({ key: String(s), label: String(s) }))}
          onChange={(s) => setStage(Number(s))}
        />
      </div>
      {example.error && <Problem error={example.error} />}
      <dl className="mt-4" aria-live="polite">
        {example.data?.effects.map((e) => (
          <div key={e.about} className="border-t border-rule py-2">
            <dt className="text-sm text-soft">{e.about}</dt>
            <dd className="font-serif">{e.text}</dd>
          </div>
        ))}
      </dl>
    </aside>
  )
}
