import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { Button, buttonClass } from '../../ui/Button'
import { shortDay } from '../../ui/days'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { type Consents, consentsQuery, type Purpose, useConsentList, useSaveConsents } from './consentQueries'

/** ClassConsents is what each home agreed to: by whom, when; as a list, in and out. */
export function ClassConsents({ classId }: { classId: string }) {
  const { data, error } = useQuery(consentsQuery(classId))
  if (error) return <Problem error={error} />
  if (!data) return <Waiting />
  return (
    <section aria-label="Consent">
      <h2>What homes agreed to</h2>
      <p className="max-w-2xl text-soft">
        {data.needed
          ? 'The school asks homes first: until a home has answered, the player practices and nothing is recorded.'
          : 'The school’s administrator has not asked for consent: only a “no” changes something. What your law and your school ask for comes before this page.'}
      </p>
      <dl className="mt-3 grid max-w-4xl gap-x-6 gap-y-2 text-sm sm:grid-cols-3">
        {data.purposes.map((p) => (
          <div key={p.key}>
            <dt className="font-serif text-base">{p.name}</dt>
            <dd className="text-soft">{p.says}</dd>
          </div>
        ))}
      </dl>
      <ConsentList classId={classId} />
      <Answers key={data.changed + data.players.length} classId={classId} all={data} />
    </section>
  )
}

/** ConsentList brings a list of answers in, and takes one out that can be brought in again. */
function ConsentList({ classId }: { classId: string }) {
  const bring = useConsentList(classId)
  return (
    <div className="mt-4 flex flex-wrap items-center gap-3">
      <label className={buttonClass()}>
        Import roster
        <input
          type="file"
          accept=".csv,.txt,.tsv"
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0]
            if (file) bring.mutate(file)
            e.target.value = '' // the same file may be chosen again, mended
          }}
        />
      </label>
      <a className={buttonClass()} href={`/api/classes/${classId}/consents.csv`} download>
        Take the list out (CSV)
      </a>
      <span className="text-sm text-soft">
        Names, and columns recording, keeping, showing with yes or no; by says who.
      </span>
      {bring.data && (
        <p role="status" className="w-full">
          {bring.data.changed} answers were written down.
          {bring.data.unknown && ` Not on the class’s list: ${bring.data.unknown.join(', ')}.`}
        </p>
      )}
      {bring.error && <Problem error={bring.error} />}
    </div>
  )
}

/** Changes are answers that are not saved yet, by player and purpose. */
type Changes = Record<string, boolean>

/** Answers is the table: yes, no or not answered for each home and purpose. */
function Answers({ classId, all }: { classId: string; all: Consents }) {
  const save = useSaveConsents(classId)
  const [changes, setChanges] = useState<Changes>({})
  const set = (player: string, purpose: Purpose, given: boolean) =>
    setChanges((now) => ({ ...now, [`${player} ${purpose}`]: given }))
  const setAll = (purpose: Purpose) =>
    setChanges((now) => ({ ...now, ...Object.fromEntries(all.players.map((q) => [`${q.id} ${purpose}`, true])) }))
  const count = Object.keys(changes).length
  function submit(e: FormEvent<HTMLFormElement>) {
    e.preventDefault()
    const by = String(new FormData(e.currentTarget).get('by'))
    const answers = Object.entries(changes).map(([key, given]) => {
      const [player = '', purpose] = key.split(' ')
      return { player, purpose: purpose as Purpose, given }
    })
    save.mutate({ by, answers }, { onSuccess: () => setChanges({}) })
  }
  return (
    <form onSubmit={submit}>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a box that is pushed along is reached by the keyboard */}
      <section aria-label="Who agreed to what" tabIndex={0} className="relative overflow-x-auto">
        <table className="mt-4 w-full max-w-4xl border-collapse">
          <thead>
            <tr className="border-y border-ink text-left">
              <th scope="col" className="py-2 font-serif font-normal">
                Player
              </th>
              {all.purposes.map((p) => (
                <th key={p.key} scope="col" className="py-2 font-serif font-normal">
                  {p.name}{' '}
                  <Button look="quiet" onClick={() => setAll(p.key)}>
                    all yes
                  </Button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {all.players.map((q) => (
              <tr key={q.id} className="border-b border-rule">
                <th scope="row" className="py-1 text-left font-normal">
                  {q.name}
                </th>
                {all.purposes.map((p) => {
                  const said = q.said[p.key]
                  const given = changes[`${q.id} ${p.key}`] ?? said?.given
                  return (
                    <td key={p.key} className="py-1">
                      <select
                        aria-label={`${q.name}, ${p.name}`}
                        value={given === undefined ? '' : given ? 'yes' : 'no'}
                        onChange={(e) => set(q.id, p.key, e.target.value === 'yes')}
                        className="min-h-10 rounded-md border border-edge bg-sheet px-2"
                      >
                        {/* An answer is answered by another one: what was said stays written down. */}
                        {given === undefined && <option value="">not answered</option>}
                        <option value="yes">yes</option>
                        <option value="no">no</option>
                      </select>
                      {said && (
                        <span className="ml-2 text-xs text-soft" title={said.by}>
                          {shortDay(said.on)}, {said.by}
                        </span>
                      )}
                    </td>
                  )
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <div className="sticky bottom-0 mt-4 flex max-w-4xl flex-wrap items-end gap-3 border-t border-rule bg-paper py-3">
        <Field label="Who said so, or on which form" name="by" required maxLength={120} className="min-w-72" />
        <Button type="submit" look="main" disabled={count === 0 || save.isPending}>
          Write {count} {count === 1 ? 'answer' : 'answers'} down
        </Button>
        {save.isSuccess && count === 0 && <span role="status">Written down.</span>}
      </div>
      {save.error && <Problem error={save.error} />}
    </form>
  )
}
