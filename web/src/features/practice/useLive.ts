import { type RefObject, useEffect, useRef, useState } from 'react'
import type { Recording } from '../../ear/recorder'

/**
 * useLive reads something off a recording once a frame and draws its component again only
 * when that changed: give it a number of a few steps or a word, not the time itself.
 */
export function useLive<T extends number | string | boolean>(
  recording: Recording,
  read: (recording: Recording) => T,
): T {
  const [value, setValue] = useState(() => read(recording))
  const latest = useRef(read)
  latest.current = read
  useEffect(() => {
    let shown = latest.current(recording)
    setValue(shown)
    return everyFrame(recording, () => {
      const now = latest.current(recording)
      // React is told only of what changed: being told sixty times a second is work too.
      if (Object.is(now, shown)) return
      shown = now
      setValue(now)
    })
  }, [recording])
  return value
}

/** useMoved moves an element once a frame, without drawing anything again. */
export function useMoved<E extends Element>(
  recording: Recording,
  move: (element: E, recording: Recording) => void,
): RefObject<E | null> {
  const element = useRef<E>(null)
  const latest = useRef(move)
  latest.current = move
  useEffect(
    () =>
      everyFrame(recording, () => {
        if (element.current) latest.current(element.current, recording)
      }),
    [recording],
  )
  return element
}

/** What is done before each frame while a recording is on. */
const beforeFrames = new WeakMap<Recording, Set<() => void>>()

/**
 * everyFrame does something before each frame until the result is called, or the take is over:
 * from then on the page has the word to draw, and nothing else. Whatever is done for one
 * recording is done in one call of the browser's.
 */
export function everyFrame(recording: Recording, work: () => void): () => void {
  const all = beforeFrames.get(recording) ?? framesOf(recording)
  all.add(work)
  return () => all.delete(work)
}

function framesOf(recording: Recording): Set<() => void> {
  const all = new Set<() => void>()
  beforeFrames.set(recording, all)
  let frame = requestAnimationFrame(function look() {
    for (const work of all) work()
    frame = requestAnimationFrame(look)
  })
  const stop = () => cancelAnimationFrame(frame)
  recording.done.then(stop, stop)
  return all
}
