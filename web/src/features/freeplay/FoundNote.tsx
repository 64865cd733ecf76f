import { lazy, Suspense } from 'react'
import type { Found } from '../../ear/ask'
import { FingeringDiagram } from '../../notation/FingeringDiagram'

const Staff = lazy(() => import('../../notation/Staff'))

/** found is drawn pale when it has stopped sounding; tune is left out where ears come first. */
type Props = { found: Found; clef: 'treble' | 'bass'; sounding: boolean; tune: boolean }

/** FoundNote is the note that was played: on the staff, by name, by the fingers. */
export function FoundNote({ found, clef, sounding, tune }: Props) {
  return (
    <div className={`flex flex-wrap items-center gap-x-8 gap-y-2 ${sounding ? '' : 'text-soft'}`}>
      <div className="h-36">
        <Suspense>
          <Staff clef={clef} keyFifths={0} note={found.written} accidental={found.accidental} />
        </Suspense>
      </div>
      <div>
        <p className="font-serif text-2xl">
          {found.called}
          {found.also && <span className="text-lg text-soft"> or {found.also}</span>}
        </p>
        <p>{found.place}</p>
        {found.open && <p>{found.open}</p>}
        {tune && <p className="font-serif text-lg">{found.tune}</p>}
      </div>
      {found.fingering && (
        <figure className="text-center">
          <FingeringDiagram fingering={found.fingering} height={130} />
          <figcaption className="text-sm">{found.fingering.text}</figcaption>
        </figure>
      )}
    </div>
  )
}

/** SpokenNote says the note to a screen reader once it has ended: the microphone would hear the voice. */
export function SpokenNote({ says, sounding }: { says: string; sounding: boolean }) {
  return (
    <p role="status" className="sr-only">
      {sounding ? '' : says}
    </p>
  )
}
