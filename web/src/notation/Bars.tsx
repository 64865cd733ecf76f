import { useEffect, useRef } from 'react'
import {
  Accidental,
  Articulation,
  Curve,
  Dot,
  Formatter,
  type RenderContext,
  Renderer,
  Stave,
  StaveNote,
  StaveTie,
  Tuplet,
  Voice,
} from 'vexflow/core'
import type { Schemas } from '../api/client'
import { keyName, keyOf, useMusicFonts } from './fonts'
import { drawLoudness, drawManners, isMarked } from './marks'
import { signs } from './Staff'

/** The core's reading of a step: what is written, in symbols an engraver can set. */
type Score = Schemas['Score']
/** One bar of it, with its symbols in order. */
type Bar = Schemas['Bar']
/** A note or a rest, with its ties and slurs. A note held over a barline is two symbols. */
type Symbol = Schemas['Symbol']
/** width is in pixels; says is what a screen reader hears in place of the drawing. */
type Props = { score: Score; bars: Bar[]; width: number; says: string }

/** Pixels from one line of music to the next; with dynamics under it or words over it, it needs more. */
const plainHeight = 92
const markedHeight = 124
const headWidth = 84 // clef and key, on every line
/** The least pixels for a bar, and what each symbol in it adds: closer, and eighths are set on top of one another. */
const emptyBar = 30
const symbolWidth = 24

/** Bars engraves a score in lines of as many bars as there is room for. */
export default function Bars({ score, bars, width, says }: Props) {
  const room = useRef<HTMLDivElement>(null)
  const ready = useMusicFonts()
  useEffect(() => {
    const el = room.current
    if (!el || !ready) return
    el.replaceChildren()
    const lineHeight = isMarked(bars) ? markedHeight : plainHeight
    const places = placesOf(bars, width)
    const lines = 1 + (places.at(-1)?.line ?? 0)
    const renderer = new Renderer(el, Renderer.Backends.SVG)
    renderer.resize(width, lines * lineHeight + 20)
    const context = renderer.getContext()
    context.setFillStyle('currentColor')
    context.setStrokeStyle('currentColor')
    const drawn: Drawn[] = []
    bars.forEach((bar, n) => {
      const place = places[n]
      if (place) drawn.push(...drawBar(context, score, bar, place, lineHeight))
    })
    drawTies(context, drawn)
    drawSlides(context, drawn)
    drawLoudness(context, drawn)
    drawManners(context, drawn)
    return () => el.replaceChildren()
  }, [ready, score, bars, width])
  return <div ref={room} role="img" aria-label={says} className="overflow-x-auto" />
}

/**
 * A note that stands on the page, and on which line: a slur over a line break is drawn
 * in two.
 */
export type Drawn = { note: StaveNote; symbol: Symbol; line: number }
/** Where a bar stands: its line from 0, whether it is the line's first, the page's first, and its pixels across. */
type Place = { line: number; heads: boolean; first: boolean; x: number; width: number }

/** placesOf fills line after line with as many bars as there is room for, and spreads each line over the width. */
export function placesOf(bars: Bar[], width: number): Place[] {
  const wants = bars.map((b) => emptyBar + symbolWidth * b.symbols.length)
  const room = width - headWidth - 6
  const out: Place[] = []
  for (let from = 0, line = 0; from < bars.length; line++) {
    let to = from
    let used = 0
    while (to < bars.length && (to === from || used + (wants[to] ?? 0) <= room)) used += wants[to++] ?? 0
    // The last line is not drawn wider than its music needs.
    const scale = to === bars.length && from > 0 ? Math.min(room / used, 1.6) : room / used
    let x = headWidth + 2
    for (let n = from; n < to; n++) {
      const each = (wants[n] ?? 0) * scale
      const heads = n === from
      out.push({ line, heads, first: n === 0, x: heads ? 2 : x, width: heads ? each + headWidth : each })
      x += each
    }
    from = to
  }
  return out
}

/** drawBar writes clef and key only where a line begins, as printed music does. */
function drawBar(context: RenderContext, score: Score, bar: Bar, place: Place, lineHeight: number): Drawn[] {
  const { line, heads, first, x, width } = place
  const stave = new Stave(x, line * lineHeight + (lineHeight - plainHeight) / 2 - 8, width)
  if (heads) stave.addClef(score.clef).addKeySignature(keyName(score.key_fifths))
  if (first) stave.addTimeSignature('4/4')
  stave.setContext(context).draw()
  const drawn = bar.symbols.map((symbol) => ({ symbol, note: noteOf(score, symbol), line }))
  const triplets = tripletsOf(drawn)
  const voice = new Voice({ numBeats: 4, beatValue: 4 }).setMode(Voice.Mode.SOFT).addTickables(drawn.map((d) => d.note))
  new Formatter().joinVoices([voice]).formatToStave([voice], stave)
  voice.draw(context, stave)
  for (const t of triplets) t.setContext(context).draw()
  return drawn
}

/** The engraver's letters for the lengths the core writes. */
const durations: Record<Symbol['type'], string> = {
  whole: 'w',
  half: 'h',
  quarter: 'q',
  eighth: '8',
  '16th': '16',
  '32nd': '32',
}

/** The engraver's names for marks over or under a note. */
const marksOf = { staccato: 'a.', tenuto: 'a-', accent: 'a>' }

/** What is not played on the instrument has heads of its own, as paper does: a cross is a buzz, a diamond is sung. */
const heads: Partial<Record<Symbol['phase'], string>> = { buzz: 'X', sing: 'D', finger: 'S' }
/** The engraver numbers heads by how long they are. */
const headNumbers: Partial<Record<Symbol['type'], number>> = { whole: 0, half: 1 }

/** headOf is the ending of an engraver's key for a note that is not simply played. */
function headOf(symbol: Symbol): string {
  const head = heads[symbol.phase]
  if (!head) return ''
  const number = headNumbers[symbol.type] ?? 2
  return head === 'S' ? `/S${Math.max(1, number)}` : `/${head}${number}`
}

/**
 * noteOf spells a note as the core spelled it: which name a black key has is music, and
 * not decided here.
 */
function noteOf(score: Score, symbol: Symbol): StaveNote {
  const segment = score.segments[symbol.segment]
  const written = symbol.goal ? segment?.goal?.written : segment?.written
  const rest = symbol.rest || !written
  const middle = score.clef === 'bass' ? 'd/3' : 'b/4'
  const duration = `${durations[symbol.type]}${symbol.dotted ? 'd' : ''}${rest ? 'r' : ''}`
  const note = new StaveNote({
    clef: score.clef,
    keys: [rest || !written ? middle : keyOf(written) + headOf(symbol)],
    duration,
    autoStem: true,
  })
  if (symbol.dotted) Dot.buildAndAttach([note], { all: true })
  if (!rest && symbol.mark) note.addModifier(new Articulation(marksOf[symbol.mark]), 0)
  if (!rest && symbol.accidental) note.addModifier(new Accidental(signs[symbol.accidental]), 0)
  return note
}

/** tripletsOf brackets runs of triplet notes, three eighths' worth at a time. */
function tripletsOf(drawn: Drawn[]): Tuplet[] {
  const out: Tuplet[] = []
  let group: StaveNote[] = []
  let units = 0
  for (const { note, symbol } of drawn) {
    if (!symbol.triplet) continue
    group.push(note)
    units += symbol.units
    if (units % 12 === 0) {
      out.push(new Tuplet(group, { numNotes: 3, notesOccupied: 2 }))
      group = []
    }
  }
  return out
}

/** drawTies comes last, when both ends of each arc stand on the page. */
function drawTies(context: RenderContext, drawn: Drawn[]) {
  let slurFrom: Drawn | undefined
  drawn.forEach((d, n) => {
    const next = drawn[n + 1]
    if (d.symbol.tie_to && next) tie(context, d, next)
    if (d.symbol.slur_start) slurFrom = d
    if (d.symbol.slur_end && slurFrom) {
      if (slurFrom.line === d.line) slur(context, slurFrom.note, d.note)
      else tie(context, slurFrom, d)
      slurFrom = undefined
    }
  })
}

/** slur bows the more, the further the notes lie apart, so that it runs round their stems. */
function slur(context: RenderContext, from: StaveNote, to: StaveNote) {
  const apart = Math.abs((from.getYs()[0] ?? 0) - (to.getYs()[0] ?? 0))
  const bow = 12 + apart * 0.6
  new Curve(from, to, {
    cps: [
      { x: 0, y: bow },
      { x: 0, y: bow },
    ],
  })
    .setContext(context)
    .draw()
}

/** drawSlides draws a line from where a slide begins to its goal. */
function drawSlides(context: RenderContext, drawn: Drawn[]) {
  drawn.forEach((d, n) => {
    const goal = drawn[n + 1]
    if (!d.symbol.slide_to || !goal || goal.line !== d.line) return
    const [from, to] = [d.note, goal.note]
    context.beginPath()
    context.moveTo(from.getAbsoluteX() + 18, from.getYs()[0] ?? 0)
    context.lineTo(to.getAbsoluteX() - 4, to.getYs()[0] ?? 0)
    context.stroke()
  })
}

/** tie joins two notes; over the end of a line it ends there and begins anew. */
function tie(context: RenderContext, from: Drawn, to: Drawn) {
  if (from.line === to.line) {
    new StaveTie({ firstNote: from.note, lastNote: to.note }).setContext(context).draw()
    return
  }
  new StaveTie({ firstNote: from.note }).setContext(context).draw()
  new StaveTie({ lastNote: to.note }).setContext(context).draw()
}
