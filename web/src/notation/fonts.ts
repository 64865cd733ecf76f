import academico from '@vexflow-fonts/academico/academico.woff2?url'
import bravura from '@vexflow-fonts/bravura/bravura.woff2?url'
import { useEffect, useState } from 'react'
import { VexFlow } from 'vexflow/core'
import type { Schemas } from '../api/client'

/** The music fonts ship with the page; VexFlow's own loader would ask another host. */
let fonts: Promise<unknown> | undefined
/**
 * loadFonts is asked by every drawing and loads once: notes measured before their font
 * is there are set on top of each other.
 */
function loadFonts() {
  fonts ??= Promise.all(
    [new FontFace('Bravura', `url(${bravura})`), new FontFace('Academico', `url(${academico})`)].map(async (f) => {
      document.fonts.add(await f.load())
    }),
  ).then(() => VexFlow.setFonts('Bravura', 'Academico'))
  return fonts
}

/** useMusicFonts tells when notes can be drawn. */
export function useMusicFonts(): boolean {
  const [ready, setReady] = useState(false)
  useEffect(() => {
    void loadFonts().then(() => setReady(true))
  }, [])
  return ready
}

/**
 * Key signatures from seven flats to seven sharps, so that fifths + 7 is the place in
 * the list.
 */
const keys = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#']

/** keyName names a key signature as the engraver does. */
export const keyName = (fifths: number) => keys[fifths + 7] ?? 'C'

/** Accidentals by their alteration in semitones. */
const accidentals: Record<number, string> = { [-1]: 'b', 0: '', 1: '#' }

/** keyOf names a note as the engraver does. */
export const keyOf = (note: Schemas['Spelling']) =>
  `${note.step.toLowerCase()}${accidentals[note.alter] ?? ''}/${note.octave}`
