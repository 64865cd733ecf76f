import { type RefObject, useEffect, useRef, useState } from 'react'
import type { Excerpt } from './queries'

/** ExcerptSound plays the part that matters, and stops at its end. */
export type ExcerptSound = {
  at: number
  playing: boolean
  /** again plays from the excerpt's beginning, or stops */
  again: () => void
  /** jump plays from where it happened */
  jump: () => void
  stop: () => void
}

const lead = 0.3 // seconds before what is jumped to

/**
 * useExcerptSound plays the excerpt alone and stops at its end. Its clock is read once a
 * frame: the time updates of an audio element come four times a second, too coarse for a
 * line on a ribbon.
 */
export function useExcerptSound(audio: RefObject<HTMLAudioElement | null>, e: Excerpt): ExcerptSound {
  const [state, setState] = useState({ at: 0, playing: false })
  const stopped = useRef(false) // before it could begin: then it does not
  useEffect(() => {
    const el = audio.current
    if (!el) return
    let frame = 0
    const follow = () => {
      cancelAnimationFrame(frame)
      if (el.currentTime >= e.to_s) el.pause()
      setState({ at: el.currentTime, playing: !el.paused })
      if (!el.paused) frame = requestAnimationFrame(follow)
    }
    for (const name of ['play', 'pause', 'seeked', 'ended'] as const) el.addEventListener(name, follow)
    const begin = () => {
      if (stopped.current) return
      el.currentTime = e.from_s
      void el.play().catch(() => {}) // until a key was pressed the browser may not
    }
    if (el.readyState >= 1) begin()
    else el.addEventListener('loadedmetadata', begin, { once: true })
    return () => {
      cancelAnimationFrame(frame)
      el.pause()
      el.removeEventListener('loadedmetadata', begin)
      for (const name of ['play', 'pause', 'seeked', 'ended'] as const) el.removeEventListener(name, follow)
    }
  }, [audio, e.from_s, e.to_s])
  const from = (seconds: number) => {
    const el = audio.current
    if (!el) return
    el.currentTime = Math.max(0, seconds)
    void el.play().catch(() => {})
  }
  return {
    ...state,
    again: () => (state.playing ? audio.current?.pause() : from(e.from_s)),
    stop: () => {
      stopped.current = true
      audio.current?.pause()
    },
    jump: () => from((e.from_s + e.to_s) / 2 - lead),
  }
}
