import { memo } from 'react'
import type { Schemas } from '../../api/client'
import { Ribbon } from '../../ribbon/Ribbon'
import { ResultMark, resultWords } from '../../ui/ResultMark'
import { useNear } from '../../ui/useNear'
import type { Rights } from '../signin'

/** A player's latest take of one step, or why there is none. */
type Cell = Schemas['BoardCell']
/** A row is one player; its cells stand in the order of the steps above. */
type Props = {
  player: Schemas['PlayerRow']
  classId: string
  rights: Rights
  onActs: (player: Schemas['PlayerRow']) => void
}

/** From this many steps on, a cell keeps to its ribbon and its mark. */
export const denseFrom = 3

/**
 * BoardRow is a player's line; it is drawn again only when it changed. Until it
 * comes near the screen its cells are one, with their words for the ear: five
 * hundred links are most of what a full board costs. Whatever goes to a row, the
 * keyboard or a reader, brings it near first. Its links are followed by the
 * board (useInAppLinks).
 */
export const BoardRow = memo(function BoardRow({ player, classId, rights, onActs }: Props) {
  const dense = player.cells.length >= denseFrom
  const [row, near] = useNear<HTMLTableRowElement>()
  return (
    <tr ref={row} className="border-b border-rule">
      <th scope="row" className="h-10 truncate pr-4 text-left font-normal" title={player.name}>
        {rights.directs ? (
          <span className="flex items-center justify-between gap-1">
            <a
              className="truncate decoration-edge underline-offset-4 hover:underline"
              href={`/class/${classId}/player/${player.id}`}
            >
              {player.name}
            </a>
            <button
              type="button"
              // The dots are drawn by the style: seventy drawings less on a full board.
              className="no-print min-h-8 min-w-8 shrink-0 rounded text-soft before:content-['…'] hover:bg-band hover:text-ink"
              aria-label={`For ${player.name}`}
              onClick={() => onActs(player)}
            />
          </span>
        ) : (
          player.name
        )}
      </th>
      {near ? (
        player.cells.map((cell, n) => (
          // Cells stand in the order of the steps and have no name of their own.
          // biome-ignore lint/suspicious/noArrayIndexKey: see above
          <td key={n} className={dense ? 'p-0 pr-3' : 'p-0'}>
            <CellView cell={cell} player={player.name} dense={dense} hears={rights.hears} />
          </td>
        ))
      ) : (
        <td colSpan={player.cells.length}>
          <span className="sr-only">{player.cells.map(farWords).join(', ')}</span>
        </td>
      )}
    </tr>
  )
})

/** resultOf is what a cell's mark says. */
const resultOf = (cell: Cell) =>
  cell.state === 'done' && cell.result ? cell.result : (cell.state as 'missing' | 'waiting' | 'failed')

/** farWords are a cell's words while its row is far from the screen. */
function farWords(cell: Cell): string {
  if (cell.state === 'excused') return 'excused'
  return cell.state === 'not-asked' ? 'not for this instrument' : resultWords[resultOf(cell)]
}

/** dense is for boards of three steps and more. */
type CellProps = { cell: Cell; player: string; dense: boolean; hears: boolean }

/** CellView is one cell: the mark, and beside it the ribbon or the words that decided. */
function CellView({ cell, player, dense, hears }: CellProps) {
  if (cell.state === 'excused') return <span className="text-sm text-soft">excused</span>
  if (cell.state === 'not-asked') {
    return <span className="text-sm text-soft">{dense ? '' : 'not for this instrument'}</span>
  }
  const result = resultOf(cell)
  const said = cell.take_id !== undefined && hears // by the link
  const inside = dense ? (
    <>
      <ResultMark result={result} overruled={cell.overruled} size={16} silent={said} />
      <span className="min-w-0 max-w-24 flex-1">
        {cell.ribbon && <Ribbon ribbon={cell.ribbon} width={96} height={24} silent={said} />}
      </span>
    </>
  ) : (
    <>
      <span className="w-16 shrink-0 font-serif text-sm text-soft">{cell.written}</span>{' '}
      <span className="w-32 shrink-0 lg:w-[26rem]">
        {cell.ribbon && <Ribbon ribbon={cell.ribbon} width={416} height={38} silent={said} />}
      </span>
      <ResultMark result={result} overruled={cell.overruled} silent={said} />
      <span className="min-w-0 truncate text-sm">{words(cell)}</span>
    </>
  )
  const row = dense ? 'flex min-h-10 items-center gap-1.5' : 'flex min-h-10 items-center gap-3'
  if (!cell.take_id || !hears) return <div className={row}>{inside}</div>
  const decided = [cell.deciding, cell.simulated && 'simulated'].filter(Boolean).join(', ')
  return (
    <a
      href={`/take/${cell.take_id}`}
      className={`${row} rounded-sm hover:bg-warm-wash`}
      data-player={player}
      title={dense ? decided : undefined}
      aria-label={[`${player}: ${resultWords[result]}`, dense ? decided : shownWords(cell), cell.ribbon?.text]
        .filter(Boolean)
        .join('. ')}
    >
      {inside}
    </a>
  )
}

/** words says what decided, or that nothing has yet. */
function words(cell: Cell) {
  if (cell.state === 'missing') return <span className="text-soft">not played</span>
  if (cell.state === 'waiting') return <span className="text-soft">being listened to</span>
  return (
    <>
      {cell.deciding}
      <span className="text-soft">{besides(cell)}</span>
    </>
  )
}

/** besides is what else is to be known of a cell, behind what decided. */
function besides(cell: Cell): string {
  const out = []
  if (cell.takes > 1) out.push(`${cell.takes} takes`)
  if (cell.comments > 0) out.push(cell.comments === 1 ? 'a comment' : `${cell.comments} comments`)
  if (cell.earlier) out.push('before the step changed')
  if (cell.simulated) out.push('simulated')
  return out.map((o) => ` · ${o}`).join('')
}

/** shownWords are a wide cell's words as they stand there: what is heard has to hold what is seen. */
const shownWords = (cell: Cell) => `${cell.written ?? ''} ${cell.deciding ?? ''}${besides(cell)}`
