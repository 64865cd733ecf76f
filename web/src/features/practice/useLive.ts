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
  useEffect(() => everyFrame(recording, () => setValue(latest.current(recording))), [recording])
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

/**
 * everyFrame does something before each frame until the result is called, or the take is over:
 * from then on the page has the word to draw, and nothing else.
 */
export function everyFrame(recording: Recording, work: () => void): () => void {
  let frame = requestAnimationFrame(function look() {
    work()
    frame = requestAnimationFrame(look)
  })
  const stop = () => cancelAnimationFrame(frame)
  recording.done.then(stop, stop)
  return stop
}
