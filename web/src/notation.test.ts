// @vitest-environment node
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { Midi } from '@tonejs/midi'
import { JSDOM } from 'jsdom'
import { beforeAll, describe, expect, it } from 'vitest'

// What the core writes is read back by two readers that know nothing of it: an
// engraver (MusicXML to its own form and to MIDI) and a MIDI parser.

const folder = join(import.meta.dirname, '../../core/notation/testdata')
type Note = { written: string; midi: number; beats: number }
const expected: { file: string; notes: Note[] }[] = JSON.parse(readFileSync(join(folder, 'expected.json'), 'utf8'))

let engraver: import('verovio/esm').VerovioToolkit
beforeAll(async () => {
  const { default: createModule } = await import('verovio/wasm')
  const { VerovioToolkit } = await import('verovio/esm')
  engraver = new VerovioToolkit(await createModule())
}, 60_000)

const alterations: Record<string, string> = { f: '♭', s: '♯', n: '' }

/** written lists the notes of an encoding, tied ones as one. */
function written(mei: string): string[] {
  const xml = new JSDOM(mei, { contentType: 'text/xml' }).window.document
  const continued = new Set<string>()
  for (const tie of xml.querySelectorAll('tie')) continued.add((tie.getAttribute('endid') ?? '').slice(1))
  return [...xml.querySelectorAll('note')]
    .filter((n) => !continued.has(n.getAttribute('xml:id') ?? '') && !/[mt]/.test(n.getAttribute('tie') ?? ''))
    .map((n) => {
      const accid = n.querySelector('accid')
      const alter =
        accid?.getAttribute('accid') ?? accid?.getAttribute('accid.ges') ?? n.getAttribute('accid.ges') ?? ''
      return `${(n.getAttribute('pname') ?? '').toUpperCase()}${alterations[alter] ?? ''}${n.getAttribute('oct')}`
    })
}

describe.each(expected)('$file', ({ file, notes }) => {
  it('is MusicXML that an engraver reads as written', () => {
    expect(engraver.loadData(readFileSync(join(folder, `${file}.musicxml`), 'utf8'))).toBeTruthy()
    expect(written(engraver.getMEI({}))).toEqual(notes.map((n) => n.written))
  })

  it('is MusicXML that sounds where the instrument does', () => {
    engraver.loadData(readFileSync(join(folder, `${file}.musicxml`), 'utf8'))
    const midi = new Midi(Buffer.from(engraver.renderToMIDI(), 'base64'))
    expect(midi.tracks.flatMap((t) => t.notes).map((n) => n.midi)).toEqual(notes.map((n) => n.midi))
  })

  it('is a MIDI file with the same notes', () => {
    const midi = new Midi(readFileSync(join(folder, `${file}.mid`)))
    const part = midi.tracks.find((t) => t.channel === 0 && t.notes.length > 0)?.notes ?? []
    expect(part.map((n) => n.midi)).toEqual(notes.map((n) => n.midi))
    part.forEach((n, k) => {
      const beats = n.durationTicks / midi.header.ppq
      expect(beats).toBeLessThanOrEqual((notes[k]?.beats ?? 0) + 0.01)
      expect(beats).toBeGreaterThan((notes[k]?.beats ?? 0) - 0.1)
    })
  })
})
