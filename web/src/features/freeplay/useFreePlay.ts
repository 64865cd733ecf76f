import { useCallback, useEffect, useRef, useState } from 'react'
import { type Found, type Request, which } from '../../ear/ask'
import type { Moment, Range } from '../../ear/core'
import { listen } from '../../ear/listener'
import { openMicrophone, type Source } from '../../ear/microphone'

/** Playing is what free play shows: where it stands, and what was found. */
export type Playing = {
  at: 'idle' | 'opening' | 'listening'
  /** found is the note that sounds, or the last one */
  found?: Found
  /** sounding is whether it sounds now */
  sounding: boolean
  problem?: unknown
}

const every = 120 // milliseconds between two questions: a note is read, not watched
const window = 18 // moments of 10 ms that a note is taken from
const fewest = 8 // of them with a pitch, before a note is named
const sure = 0.6 // confidence of a moment that counts

/**
 * useFreePlay listens to what is played and says which note it is. Nothing is recorded:
 * the sound goes into the ear and is gone. asked is a note that is looked for; source may
 * stand in for the microphone.
 */
export function useFreePlay(of: Request<'chart'>, range: Range | undefined, asked = 0) {
  const [playing, setPlaying] = useState<Playing>({ at: 'idle', sounding: false })
  const close = useRef(() => {})
  const stop = useCallback(() => {
    close.current()
    close.current = () => {}
    setPlaying((p) => ({ ...p, at: 'idle', sounding: false }))
  }, [])
  const gone = useRef(false)
  useEffect(() => {
    gone.current = false
    return () => {
      gone.current = true
      close.current()
    }
  }, [])
  const start = useCallback(
    async (open: () => Promise<Source> = openMicrophone) => {
      if (!range) return
      setPlaying({ at: 'opening', sounding: false })
      try {
        const source = await open()
        if (gone.current) return source.close() // the page was left while the browser asked
        close.current = hear(source, of, range, asked, (now) => setPlaying((p) => ({ ...p, ...now })))
        void source.lost.then((why) => {
          stop()
          setPlaying((p) => ({ ...p, problem: new Error(why) }))
        })
        source.begin?.(source.context.currentTime)
        setPlaying({ at: 'listening', sounding: false })
      } catch (problem) {
        setPlaying({ at: 'idle', sounding: false, problem })
      }
    },
    [of, range, asked, stop],
  )
  return { playing, start: (open?: () => Promise<Source>) => void start(open), stop }
}

/** hear lets the ear listen to a source and asks which note it is; the returned function ends it. */
function hear(
  source: Source,
  of: Request<'chart'>,
  range: Range,
  asked: number,
  tell: (now: Partial<Playing>) => void,
) {
  let latest: Moment[] = []
  const ear = listen(range, source.context.sampleRate, (more) => {
    latest = [...latest, ...more].slice(-window)
  })
  source.onBlock((_, samples) => ear.hear(samples))
  let asking = false
  const timer = setInterval(() => {
    const pitch = steadyPitch(latest)
    if (pitch === 0) return tell({ sounding: false })
    if (asking) return
    asking = true
    void which(of, pitch, asked)
      .then((found) => tell({ found, sounding: true }))
      .catch(console.warn)
      .finally(() => {
        asking = false
      })
  }, every)
  return () => {
    clearInterval(timer)
    ear.close()
    source.close()
  }
}

/** steadyPitch is the middle of the latest pitches, 0 where there is none yet. */
export function steadyPitch(moments: Moment[]): number {
  const sounding = moments.filter((m) => m.pitch > 0 && m.confidence >= sure).map((m) => m.pitch)
  if (sounding.length < fewest || (moments.at(-1)?.pitch ?? 0) === 0) return 0
  sounding.sort((a, b) => a - b)
  return sounding[Math.floor(sounding.length / 2)] ?? 0
}
