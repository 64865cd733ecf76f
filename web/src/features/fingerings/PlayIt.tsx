import type { Chart, Request } from '../../ear/ask'
import { FingeringDiagram } from '../../notation/FingeringDiagram'
import { Dialog } from '../../ui/Dialog'
import { FoundNote, SpokenNote } from '../freeplay/FoundNote'
import { ListenButton } from '../freeplay/ListenButton'
import { useFreePlay } from '../freeplay/useFreePlay'

/** of is the book the note is in; onClose goes back to it. */
type Props = { note: Chart['notes'][number]; book: Chart; of: Request<'chart'>; onClose: () => void }

/** PlayIt listens to one note of the book and says which one came. Nothing is recorded. */
export function PlayIt({ note, book, of, onClose }: Props) {
  const range = { lowest: book.ear.lowest_hz, highest: book.ear.highest_hz }
  const { playing, start, stop } = useFreePlay(of, range, note.midi)
  const { found } = playing
  const said = found?.right ? `Yes, that is ${note.called}.` : `That was ${found?.called}.`
  return (
    <Dialog open onOpenChange={onClose} title={`Play ${note.called}`} says="Hold it. Nothing is recorded.">
      {note.ways[0] && (
        <figure className="mt-4 inline-block text-center">
          <FingeringDiagram fingering={note.ways[0]} height={170} />
          <figcaption>{note.ways[0].text}</figcaption>
        </figure>
      )}
      <div className="mt-4">
        <ListenButton playing={playing} onStart={() => start()} onStop={stop} />
      </div>
      <SpokenNote says={found ? `${said} ${found.mend ?? ''}` : ''} sounding={playing.sounding} />
      <div className="mt-4 min-h-44">
        {found && (
          <>
            <p className="font-serif text-xl" data-right={found.right}>
              {said}
            </p>
            {!found.right && found.mend && <p className="mt-1 text-lg">{found.mend}</p>}
            <FoundNote
              found={found}
              clef={book.clef as 'treble' | 'bass'}
              sounding={playing.sounding}
              tune={!book.ears_first}
            />
          </>
        )}
      </div>
    </Dialog>
  )
}
