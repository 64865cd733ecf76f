import { useEffect, useRef } from 'react'
import { Formatter, Renderer, Stave, StaveNote, Voice } from 'vexflow/core'
import type { Schemas } from '../api/client'
import { keyName, keyOf, useMusicFonts } from './fonts'

/** keyFifths counts sharps, flats below nought, as the circle of fifths does. */
type Props = { clef: 'treble' | 'bass'; keyFifths: number; note: Schemas['Spelling'] }

/** In pixels before it is scaled to the room there is. */
const size = { width: 190, height: 124 }

/** Staff draws one written note with its clef and key. */
export default function Staff({ clef, keyFifths, note }: Props) {
  const room = useRef<HTMLDivElement>(null)
  const ready = useMusicFonts()
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
    stave.addClef(clef).addKeySignature(keyName(keyFifths))
    stave.setContext(context).draw()
    const voice = new Voice({ numBeats: 4, beatValue: 4 }).addTickables([
      new StaveNote({ clef, keys: [keyOf(note)], duration: 'w', alignCenter: true }),
    ])
    new Formatter().joinVoices([voice]).formatToStave([voice], stave)
    voice.draw(context, stave)
    el.firstElementChild?.setAttribute('viewBox', `0 0 ${size.width} ${size.height}`)
    return () => el.replaceChildren()
  }, [ready, clef, keyFifths, note])
  return <div ref={room} aria-hidden className="flex h-full justify-center [&_svg]:h-full [&_svg]:w-auto" />
}
