import type { RenderContext } from 'vexflow/core'
import type { Schemas } from '../api/client'
import type { Drawn } from './Bars'

/** What a line is done with, where it is not simply played. */
const ways: Record<string, string> = {
  out: 'air',
  buzz: 'buzz',
  sing: 'sing',
  finger: 'fingers only',
  listen: 'listen',
  play: '',
}

/** isMarked says whether anything stands over or under the notes of some bars. */
export const isMarked = (bars: Schemas['Bar'][]) =>
  bars.some((b) => b.symbols.some((s) => s.dynamic || s.hairpin || s.manner || s.mark || ways[s.phase]))

/** Letters of dynamics as music fonts have them (SMuFL, U+E520 to U+E522). */
const letters: Record<string, string> = { p: '\ue520', m: '\ue521', f: '\ue522' }

const under = 30 // pixels from the lowest line to the middle of what stands under it
const over = 14 // pixels from the highest line to the words over it
const opening = 5 // half the mouth of a hairpin

/** drawLoudness draws dynamics and hairpins under the notes they begin at. */
export function drawLoudness(context: RenderContext, drawn: Drawn[]) {
  drawn.forEach((d, n) => {
    const y = d.note.checkStave().getYForLine(4) + under
    const x = d.note.getAbsoluteX()
    if (d.symbol.dynamic) {
      context.setFont('Bravura', 22)
      context.fillText([...d.symbol.dynamic].map((l) => letters[l]).join(''), x - 4, y + 6)
    }
    if (!d.symbol.hairpin) return
    const from = x + (d.symbol.dynamic ? 10 + 9 * d.symbol.dynamic.length : 0)
    // It ends where its last note does: at what comes next on the line, or at the line's end.
    const last = drawn.findIndex((e, k) => k >= n && e.symbol.hairpin_end)
    hairpin(context, { from, to: endOf(drawn, last < 0 ? n : last, d), y, grows: d.symbol.hairpin === 'grow' })
  })
}

/** endOf is where a note's sound ends on the page; of one on another line, the end of this line. */
function endOf(drawn: Drawn[], n: number, begun: Drawn): number {
  const stave = begun.note.checkStave()
  const lineEnd =
    drawn
      .filter((d) => d.line === begun.line)
      .at(-1)
      ?.note.checkStave() ?? stave
  const next = drawn[n + 1]
  if (!next || next.line !== begun.line) return lineEnd.getX() + lineEnd.getWidth() - 6
  return next.note.getAbsoluteX() - 8
}

/** hairpin is two lines that part, or meet. */
function hairpin(context: RenderContext, at: { from: number; to: number; y: number; grows: boolean }) {
  const { from, y, grows } = at
  const to = Math.max(at.to, from + 12)
  for (const side of [-opening, opening]) {
    context.beginPath()
    context.moveTo(from, grows ? y : y + side)
    context.lineTo(to, grows ? y + side : y)
    context.stroke()
  }
}

/** drawManners writes over a note how it is played, and with what, where that changes. */
export function drawManners(context: RenderContext, drawn: Drawn[]) {
  let way = 'play'
  for (const d of drawn) {
    const now = d.symbol.phase in ways ? d.symbol.phase : way
    const turned = now !== way ? ways[now] || 'play' : ''
    way = now
    const says = [turned, d.symbol.manner].filter(Boolean).join(', ')
    if (!says) continue
    context.setFont('Source Serif 4 Variable, serif', 12, 'normal', 'italic')
    // The engraver's text loses plain spaces.
    context.fillText(
      says.replaceAll(' ', '\u00a0'),
      d.note.getAbsoluteX() - 4,
      d.note.checkStave().getYForLine(0) - over,
    )
  }
}
