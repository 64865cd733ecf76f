import { Dialog } from '../../ui/Dialog'
import { SingleKeys } from '../../ui/singleKeys'

/** The keys of the page, for those who play with a keyboard in reach. */
const keys: [string, string][] = [
  ['r', 'record; again'],
  ['n', 'next step'],
  ['h', 'hear how it sounds'],
  ['Esc', 'stop the take and throw it away'],
  ['?', 'this sheet'],
]

/** KeyList is the sheet that lists them. */
export default function KeyList({ onClose }: { onClose: () => void }) {
  return (
    <Dialog open onOpenChange={(open) => !open && onClose()} title="Shortcuts">
      <dl className="mt-5 grid grid-cols-[4rem_1fr] gap-y-2">
        {keys.map(([key, does]) => (
          <div key={key} className="contents">
            <dt>
              <kbd className="rounded border border-edge bg-sheet px-2 font-serif">{key}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <SingleKeys />
    </Dialog>
  )
}
