import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { nameOf, targetsOf } from '../../api/score'
import type { TakeDetail } from './queries'

/** One number of the take against its limit, in words that the core made. */
type Measure = Schemas['Spoken']

/** Measures lists every number with its limit, note by note. */
export function Measures({ take }: { take: TakeDetail }) {
  const v = take.verdict
  if (!v) return null
  const targets = targetsOf(take.score)
  const decides = (m: Measure) => v.deciding?.note === m.note && v.deciding?.key === m.key
  // Note -1 stands for the whole step, as the core writes it.
  const whole = v.measures.filter((m) => m.note < 0)
  return (
    <section>
      <h2>Measures</h2>
      {whole.length > 0 && (
        <Table measures={whole} decides={decides}>
          The whole step
        </Table>
      )}
      {targets.map((t, n) => {
        const own = v.measures.filter((m) => m.note === n)
        if (own.length === 0) return null
        return (
          // A score's targets are told apart by their place.
          // biome-ignore lint/suspicious/noArrayIndexKey: see above
          <Table key={n} measures={own} decides={decides}>
            {nameOf(t)}{' '}
            <span className="font-sans text-sm text-soft">
              sounds {t.concert}
              {t.fingering && ` · ${t.fingering.text}`}
              {t.hard && ' · a hard note, counted as tried'}
            </span>
          </Table>
        )
      })}
      {take.recording && (
        <p className="mt-3 text-sm text-soft">
          The recording: {Math.round(take.recording.snr_db)} dB above the room, floor{' '}
          {Math.round(take.recording.noise_floor_db)} dB
          {take.recording.clipped_ratio > 0 && `, ${(100 * take.recording.clipped_ratio).toFixed(1)} % clipped`}
          {take.recording.faults.length > 0 && `; ${take.recording.faults.join(', ').replaceAll('-', ' ')}`}.
        </p>
      )}
    </section>
  )
}

/** decides marks the reading that decided; the caption says what the table is of. */
type TableProps = { measures: Measure[]; decides: (m: Measure) => boolean; children: ReactNode }

/** Table shows what was judged before what only informs; the page computes nothing of it. */
function Table({ measures, decides, children }: TableProps) {
  return (
    <table className="mt-3 w-full border-collapse text-sm">
      <caption className="pb-1 text-left font-serif text-base">{children}</caption>
      <thead className="sr-only">
        <tr>
          <th scope="col">Measure</th>
          <th scope="col">Measured</th>
          <th scope="col">Wanted</th>
        </tr>
      </thead>
      <tbody>
        {measures.map((m) => (
          <tr key={m.key} className={`border-t border-rule ${decides(m) ? 'bg-warm-wash' : ''}`}>
            <th scope="row" className="w-40 py-1.5 pl-2 text-left font-normal text-soft">
              {m.label}
            </th>
            <td className={`py-1.5 ${m.judged && !m.within ? 'font-semibold text-not-yet' : ''}`}>
              {m.text}
              {/* Bold and red say it to the eye alone. */}
              {m.judged && !m.within && <span className="sr-only"> (outside the limit)</span>}
              {/* Why a number should not be believed stands with the number. */}
              {m.unsure && <span className="text-soft"> — {m.unsure}</span>}
            </td>
            <td className="py-1.5 text-soft">{m.judged ? m.wanted : 'shown, not judged'}</td>
            <td className="w-20 py-1.5 pr-2 text-right text-xs">{decides(m) && 'decided'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
