import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { Cards } from './Cards'
import { ImportRoster } from './ImportRoster'
import { NewPIN } from './NewPIN'
import { type PlayerSetUp, type Row, type SetUp, useSaveRoster, useTakeOff } from './queries'
import { RowFields } from './RowFields'

/** setUp is the whole class: a change of one player is answered with all of it. */
type Props = { classId: string; setUp: SetUp }

/** Roster is the class's list, by section; a row is changed where it stands. */
export function Roster({ classId, setUp }: Props) {
  const [editing, setEditing] = useState<Row>()
  const [importing, setImporting] = useState(false)
  const save = useSaveRoster(classId)
  const takeOff = useTakeOff(classId)
  // In the order the server gives, which is a score's: flutes first, tubas last.
  const sections = [...new Set(setUp.players.map((p) => p.section))]
  const done = () => setEditing(undefined)
  return (
    <>
      <p className="flex flex-wrap gap-3">
        <Button look="main" onClick={() => setEditing(emptyRow)}>
          Add a player
        </Button>
        <Button onClick={() => setImporting(true)}>Import roster</Button>
        <Cards classId={classId} setUp={setUp} />
      </p>
      {(save.error ?? takeOff.error) && <Problem error={save.error ?? takeOff.error} />}
      {/* A new player's row stands above the list; an old one's takes the place of its line. */}
      {editing && editing.player_id === '' && (
        <RowFields
          setUp={setUp}
          row={editing}
          onChange={setEditing}
          onSave={() => save.mutate({ rows: [editing] }, { onSuccess: done })}
          onClose={done}
        />
      )}
      {setUp.players.length === 0 && !editing && (
        <p className="mt-6 text-soft">
          Nobody is in the class yet. Add a player, or bring in a list from a spreadsheet.
        </p>
      )}
      <div className="mt-4 gap-x-10 lg:columns-2">
        {sections.map((section) => (
          <section key={section} className="mb-5 break-inside-avoid">
            <h2 className="border-b border-ink">
              {section}{' '}
              <span className="font-sans text-sm text-soft">
                {setUp.players.filter((p) => p.section === section).length}
              </span>
            </h2>
            <ul>
              {setUp.players
                .filter((p) => p.section === section)
                .map((p) =>
                  editing?.player_id === p.id ? (
                    <li key={p.id}>
                      <RowFields
                        setUp={setUp}
                        row={editing}
                        onChange={setEditing}
                        onSave={() => save.mutate({ rows: [editing] }, { onSuccess: done })}
                        onClose={done}
                        onRemove={() => takeOff.mutate(p.id, { onSuccess: done })}
                      />
                    </li>
                  ) : (
                    <PlayerRow
                      key={p.id}
                      classId={classId}
                      player={p}
                      setUp={setUp}
                      onEdit={() => setEditing(rowOf(p))}
                    />
                  ),
                )}
            </ul>
          </section>
        ))}
      </div>
      {importing && <ImportRoster classId={classId} setUp={setUp} onClose={() => setImporting(false)} />}
    </>
  )
}

/** PlayerRow is a player as one reads a list: the name, and only what is not the usual. */
function PlayerRow({ classId, player: p, setUp, onEdit }: Props & { player: PlayerSetUp; onEdit: () => void }) {
  const variants = setUp.instruments.find((i) => i.key === p.instrument)?.variants ?? []
  return (
    <li className="flex min-h-10 items-center justify-between gap-4 border-b border-rule">
      <span>
        {p.first} {p.last}
        <span className="text-sm text-soft">
          {p.variant && ` · ${variants.find((v) => v.key === p.variant)?.name ?? p.variant}`}
          {/* The stage by the weeks is not said: it is everybody's, and changes by itself. */}
          {p.stage > 0 ? ` · stage ${p.stage}, set by you` : ''}
        </span>
      </span>
      <span className="flex gap-4">
        <NewPIN classId={classId} player={p} />
        <Button look="quiet" aria-label={`Change ${p.first} ${p.last}`} onClick={onEdit}>
          Change
        </Button>
      </span>
    </li>
  )
}

/**
 * A player who is not there yet. Line 0 is no line of a file; the problems are the
 * server's to find.
 */
const emptyRow: Row = {
  line: 0,
  first: '',
  last: '',
  instrument: '',
  variant: '',
  stage: 0,
  external_id: '',
  problems: [],
  action: 'add',
  player_id: '',
}

/** rowOf is a player of the class as the roster writes one, to be changed. */
const rowOf = (p: PlayerSetUp): Row => ({ ...emptyRow, ...p, action: 'change', player_id: p.id })
