import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { Dialog } from '../../ui/Dialog'
import { SingleKeys } from '../../ui/singleKeys'
import { meQuery } from '../signin'
import { directorHelp, directorWords } from './director'
import { playerHelp, playerWords } from './player'

/** title is the page's own; onClose goes back to it. */
type Props = { title: string; onClose: () => void }

/** HelpSheet says what a page is for, how to do what one comes for, and what its words mean. */
export default function HelpSheet({ title, onClose }: Props) {
  const { data: me } = useQuery(meQuery)
  const player = me?.role === 'player'
  const page = player ? playerHelp[title] : directorHelp[title]
  const words = player ? playerWords : directorWords
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title={`Help: ${title}`}
      says={page?.about ?? 'What this program’s words mean.'}
    >
      {page && (
        <dl className="mt-5 space-y-3">
          {page.ways.map((w) => (
            <div key={w.want}>
              <dt className="font-serif text-lg">{w.want}</dt>
              <dd>{w.how}</dd>
            </div>
          ))}
        </dl>
      )}
      <h2 className="mt-6 border-t border-rule pt-3">Words</h2>
      <dl className="mt-2 grid grid-cols-[8rem_1fr] gap-x-4 gap-y-2">
        {words.map(([word, meaning]) => (
          <div key={word} className="contents">
            <dt className="font-serif">{word}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-5">
        <Link to="/privacy" className="underline" onClick={onClose}>
          What is kept of a child
        </Link>
      </p>
      <SingleKeys />
    </Dialog>
  )
}
