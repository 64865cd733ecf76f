import { type RefObject, useEffect, useState } from 'react'

/** Loop is a stretch of a sound that is played over and over. */
export type Loop = {
  from: number | undefined
  to: number | undefined
  /** mark sets the beginning, then the end, then begins anew */
  mark: () => void
  clear: () => void
}

const shortest = 0.2 // seconds

/**
 * useLoop plays a stretch over and over, watched once a frame: the element's own time
 * updates would overshoot a loop of half a second by half its length.
 */
export function useLoop(audio: RefObject<HTMLAudioElement | null>): Loop {
  const [stretch, setStretch] = useState<{ from?: number; to?: number }>({})
  const { from, to } = stretch
  useEffect(() => {
    const el = audio.current
    if (!el || from === undefined || to === undefined) return
    let frame = requestAnimationFrame(function look() {
      if (!el.paused && (el.currentTime >= to || el.currentTime < from - shortest)) el.currentTime = from
      frame = requestAnimationFrame(look)
    })
    return () => cancelAnimationFrame(frame)
  }, [audio, from, to])
  return {
    from,
    to,
    mark: () => {
      const now = audio.current?.currentTime ?? 0
      if (from === undefined || to !== undefined || now < from + shortest) setStretch({ from: now })
      else setStretch({ from, to: now })
    },
    clear: () => setStretch({}),
  }
}
