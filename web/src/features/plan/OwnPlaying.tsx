import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { newId } from '../../api/ids'
import { putSound } from '../../api/putSound'
import { useRecorder } from '../../ear/useRecorder'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Problem } from '../../ui/Problem'
import { SoundPlayer } from '../../ui/SoundPlayer'
import { type Item, type Member, modelsQuery, useDropModel } from './queries'

type Props = { classId: string; item: Item; band: Member[] }

/** OwnPlaying is the director's own model of a step, for all or for one instrument. */
export function OwnPlaying({ classId, item, band }: Props) {
  const models = useQuery(modelsQuery(classId, item))
  const drop = useDropModel(classId, item)
  const [recording, setRecording] = useState(false)
  const nameOf = (key: string) => band.find((m) => m.instrument === key)?.name ?? 'everyone'
  const list = models.data?.models ?? []
  return (
    <details className="mt-3 text-sm" open={recording || undefined}>
      <summary className="cursor-pointer text-soft">
        {list.length === 0 ? 'Play it for them: a model of your own' : `Models of your own: ${list.length}`}
      </summary>
      <ul>
        {list.map((m) => (
          <li key={m.id} className="mt-2">
            <span>For {nameOf(m.instrument)}</span>
            <span className="flex items-center gap-3">
              <span className="min-w-0 flex-1">
                <SoundPlayer
                  src={`/api/classes/${classId}/models/${m.id}/sound.wav`}
                  label={`The model for ${nameOf(m.instrument)}`}
                  preload="none"
                />
              </span>
              {m.mine && (
                <Button look="quiet" onClick={() => drop.mutate(m.id)}>
                  Delete
                </Button>
              )}
            </span>
          </li>
        ))}
      </ul>
      {(models.error ?? drop.error) && <Problem error={models.error ?? drop.error} />}
      {recording ? (
        <RecordModel
          classId={classId}
          item={item}
          band={band}
          onKept={() => {
            setRecording(false)
            void models.refetch()
          }}
          onClose={() => setRecording(false)}
        />
      ) : (
        <p className="mt-2 flex flex-wrap items-center gap-3">
          <Button onClick={() => setRecording(true)}>Record a model</Button>
          <span className="text-soft">Players hear it in place of the program’s tone, and slower if they like.</span>
        </p>
      )}
    </details>
  )
}

const longest = 120 // seconds; the server takes no more

/** What recording a model needs. */
type RecordProps = Props & { onKept: () => void; onClose: () => void }

/** RecordModel records at once; the silence at both ends is cut and the loudness evened when it is kept. */
function RecordModel({ classId, item, band, onKept, onClose }: RecordProps) {
  const { seconds, problem, setProblem, finish } = useRecorder(longest)
  const [of, setOf] = useState('')
  const [sending, setSending] = useState(false)
  const instruments = band.filter((m, n) => band.findIndex((o) => o.instrument === m.instrument) === n)
  async function keep() {
    const body = finish()
    if (!body) return
    setSending(true)
    const query = new URLSearchParams({
      kind: item.kind,
      parameters: JSON.stringify(item.parameters),
      instrument: of,
    })
    try {
      await putSound(`/api/classes/${classId}/models/${newId()}?${query}`, body)
      onKept()
    } catch (error) {
      setProblem(error)
      setSending(false)
    }
  }
  return (
    <section aria-label="Record a model" className="mt-2 border-t border-rule pt-2">
      {problem !== undefined && <Problem error={problem} />}
      <p role="status" className="font-serif text-lg">
        Play: {seconds.toFixed(0)} of {longest} s
      </p>
      <Choice
        label="For"
        value={of}
        options={[{ key: '', label: 'everyone' }, ...instruments.map((m) => ({ key: m.instrument, label: m.name }))]}
        onChange={setOf}
      />
      <p className="mt-2 flex gap-3">
        <Button look="main" disabled={sending || seconds < 0.5} onClick={() => void keep()}>
          Stop and keep it
        </Button>
        <Button onClick={onClose}>Throw it away</Button>
      </p>
    </section>
  )
}
