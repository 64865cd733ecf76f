import { useEffect, useRef } from 'react'
import { Accidental, Formatter, Renderer, Stave, StaveNote, Voice } from 'vexflow/core'
import type { Schemas } from '../api/client'
import { keyName, keyOf, useMusicFonts } from './fonts'

/** keyFifths counts sharps, flats below nought, as the circle of fifths does. */
type Props = {
  clef: 'treble' | 'bass'
  keyFifths: number
  note: Schemas['Spelling']
  accidental?: 'sharp' | 'flat' | 'natural' | undefined
}

/** The engraver's signs of the core's accidentals. */
export const signs = { sharp: '#', flat: 'b', natural: 'n' }

/** In pixels before it is scaled to the room there is. */
const size = { width: 190, height: 124 }

/** Staff draws one written note with its clef and key. */
export default function Staff({ clef, keyFifths, note, accidental }: Props) {
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
    const drawn = new StaveNote({ clef, keys: [keyOf(note)], duration: 'w', alignCenter: true })
    if (accidental) drawn.addModifier(new Accidental(signs[accidental]), 0)
    const voice = new Voice({ numBeats: 4, beatValue: 4 }).addTickables([drawn])
    new Formatter().joinVoices([voice]).formatToStave([voice], stave)
    voice.draw(context, stave)
    el.firstElementChild?.setAttribute('viewBox', `0 0 ${size.width} ${size.height}`)
    return () => el.replaceChildren()
  }, [ready, clef, keyFifths, note, accidental])
  return <div ref={room} aria-hidden className="flex h-full justify-center [&_svg]:h-full [&_svg]:w-auto" />
}
