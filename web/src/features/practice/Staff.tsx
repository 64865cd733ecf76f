import academico from '@vexflow-fonts/academico/academico.woff2?url'
import bravura from '@vexflow-fonts/bravura/bravura.woff2?url'
import { useEffect, useRef, useState } from 'react'
import { Formatter, Renderer, Stave, StaveNote, VexFlow, Voice } from 'vexflow/core'
import type { Schemas } from '../../api/client'

type Props = { clef: 'treble' | 'bass'; keyFifths: number; note: Schemas['Spelling'] }

/** The music fonts ship with the page; VexFlow's own loader would ask another host. */
let fonts: Promise<unknown> | undefined
function loadFonts() {
  fonts ??= Promise.all(
    [new FontFace('Bravura', `url(${bravura})`), new FontFace('Academico', `url(${academico})`)].map(async (f) => {
      document.fonts.add(await f.load())
    }),
  ).then(() => VexFlow.setFonts('Bravura', 'Academico'))
  return fonts
}

const keys = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#']
const accidentals: Record<number, string> = { [-1]: 'b', 0: '', 1: '#' }
const size = { width: 190, height: 124 }

/** Staff draws one written note with its clef and key. */
export default function Staff({ clef, keyFifths, note }: Props) {
  const room = useRef<HTMLDivElement>(null)
  const [ready, setReady] = useState(false)
  useEffect(() => {
    void loadFonts().then(() => setReady(true))
  }, [])
  useEffect(() => {
    const el = room.current
    if (!el || !ready) return
    el.replaceChildren()
    const renderer = new Renderer(el, Renderer.Backends.SVG)
    renderer.resize(size.width, size.height)
    const context = renderer.getContext()
    context.setFillStyle('currentColor')
    context.setStrokeStyle('currentColor')
    const stave = new Stave(4, -6, size.width - 10)
    stave.addClef(clef).addKeySignature(keys[keyFifths + 7] ?? 'C')
    stave.setContext(context).draw()
    const key = `${note.step.toLowerCase()}${accidentals[note.alter] ?? ''}/${note.octave}`
    const voice = new Voice({ numBeats: 4, beatValue: 4 }).addTickables([
      new StaveNote({ clef, keys: [key], duration: 'w', alignCenter: true }),
    ])
    new Formatter().joinVoices([voice]).formatToStave([voice], stave)
    voice.draw(context, stave)
    el.firstElementChild?.setAttribute('viewBox', `0 0 ${size.width} ${size.height}`)
    return () => el.replaceChildren()
  }, [ready, clef, keyFifths, note])
  return <div ref={room} aria-hidden className="flex h-full justify-center [&_svg]:h-full [&_svg]:w-auto" />
}
