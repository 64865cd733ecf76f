import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Dialog } from '../../ui/Dialog'
import type { At, Plan } from './queries'

/** The day and place are those in view: what is printed is what is seen. */
type Props = { classId: string; plan: Plan; day: number; at: At }

/** TakeOut prints the day and takes it out in open formats. */
export function TakeOut({ classId, plan, day, at }: Props) {
  const [open, setOpen] = useState(false)
  const [of, setOf] = useState(0)
  const member = plan.band[of]
  const base = `/api/classes/${classId}/plans/${plan.monday}`
  const [fingers, setFingers] = useState('drawn')
  const query = new URLSearchParams({ day: String(day), at, fingers })
  const one = new URLSearchParams({
    day: String(day),
    at,
    instrument: member?.instrument ?? '',
    variant: member?.variant ?? '',
    stage: String(member?.stage ?? 1),
  })
  return (
    <>
      <Button onClick={() => setOpen(true)}>Print and export</Button>
      {open && (
        <Dialog open onOpenChange={setOpen} title="Print and export" says="The plan as it was last saved.">
          <h3 className="mt-5">Print</h3>
          <div className="mt-1 max-w-xs">
            <Choice
              label="Fingerings"
              value={fingers}
              options={[
                { key: 'drawn', label: 'drawn at the foot' },
                { key: 'words', label: 'in words, under the notes' },
                { key: 'none', label: 'none' },
              ]}
              onChange={setFingers}
            />
          </div>
          <p className="mt-2">
            <a className="text-warm underline" href={`${base}/print.pdf?${query}`} target="_blank" rel="noreferrer">
              One page a section (PDF)
            </a>
          </p>
          <h3 className="mt-5">For one instrument</h3>
          <div className="mt-1 max-w-xs">
            <Choice
              label="Instrument"
              value={String(of)}
              options={plan.band.map((m, n) => ({ key: String(n), label: `${m.name}, stage ${m.stage}` }))}
              onChange={(n) => setOf(Number(n))}
            />
          </div>
          <p className="mt-2 flex flex-wrap gap-4">
            {['musicxml', 'mid', 'txt', 'json'].map((format) => (
              <a key={format} className="text-warm underline" href={`${base}/sheet.${format}?${one}`} download>
                {{ musicxml: 'MusicXML', mid: 'MIDI', txt: 'Text', json: 'JSON' }[format]}
              </a>
            ))}
          </p>
          <h3 className="mt-5">Calendar</h3>
          <p className="mt-1">
            Subscribe to{' '}
            <a className="break-all text-warm underline" href={plan.feed}>
              {`${window.location.origin}${plan.feed}`}
            </a>
            . Whoever has the address sees what is planned, and nobody’s name.
          </p>
        </Dialog>
      )}
    </>
  )
}
