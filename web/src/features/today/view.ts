import type { Schemas } from '../../api/client'
import { keyOf } from './Common'

/** The board as the server answers it. */
type Today = Schemas['Today']
/** A row of it. */
type Player = Schemas['PlayerRow']

/** View is what of the board is shown, and in which order; it lives in the address bar. */
export type View = {
  section: string | null
  /** show keeps to players with a cell of this result */
  show: string | null
  sort: string | null
  common: string | null
}

/** viewOf reads how the board is looked at out of the address. */
export function viewOf(search: URLSearchParams): View {
  return {
    section: search.get('section'),
    show: search.get('show'),
    sort: search.get('sort'),
    common: search.get('common'),
  }
}

/** States by how much they need an ear, for sorting. */
const worst = ['not-yet', 'cant-tell', 'failed', 'nearly', 'waiting', 'missing', 'excused', 'not-asked', 'clean']

/** shownOf is the board's sections as the view wants them. Nothing compares children in public: only their director sees this page. */
export function shownOf(today: Today, view: View): Schemas['SectionRows'][] {
  const behind = new Set(today.common.find((c) => keyOf(c) === view.common)?.takes)
  return today.sections
    .filter((s) => !view.section || s.name === view.section)
    .map((s) => ({
      ...s,
      players: sorted(
        s.players.filter((p) => fits(p, view, behind)),
        view.sort,
      ),
    }))
    .filter((s) => s.players.length > 0)
}

/**
 * fits reports whether a row is shown. A finding keeps the players whose takes are
 * behind it.
 */
function fits(p: Player, view: View, behind: Set<string>): boolean {
  if (view.common && !p.cells.some((c) => c.take_id && behind.has(c.take_id))) return false
  return !view.show || p.cells.some((c) => stateOf(c) === view.show)
}

/**
 * sorted leaves the class's own order unless it is asked for another: rows that move are
 * hard to find again.
 */
function sorted(players: Player[], by: string | null): Player[] {
  if (by !== 'need') return players
  return [...players].sort((a, b) => need(b) - need(a))
}

/** need is larger the worse a player's cells are. */
function need(p: Player): number {
  return p.cells.reduce((sum, c) => sum + (worst.length - worst.indexOf(stateOf(c))), 0)
}

/** stateOf is a cell's result where there is one, else how far it has come. */
function stateOf(c: Schemas['BoardCell']): string {
  return c.state === 'done' && c.result ? c.result : c.state
}
