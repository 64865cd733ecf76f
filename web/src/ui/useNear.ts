import { type RefObject, useEffect, useRef, useState } from 'react'
import { flushSync } from 'react-dom'

const ahead = '80px' // of scrolling, two rows of a board, so that nothing is seen to appear

/** Called once, when its element comes near. */
type Listener = () => void
/** Elements that have not come near yet. */
const waiting = new Map<Element, Listener>()
/** One observer for the whole page: one for each row of a long list is slow to make. */
let watcher: IntersectionObserver | undefined

/** watch tells once when an element comes near the screen; one observer serves them all. */
function watch(el: Element, listener: Listener): () => void {
  watcher ??= new IntersectionObserver(
    (entries) => {
      for (const e of entries) if (e.isIntersecting) waiting.get(e.target)?.()
    },
    { rootMargin: ahead },
  )
  waiting.set(el, listener)
  watcher.observe(el)
  return () => {
    waiting.delete(el)
    watcher?.unobserve(el)
  }
}

/** useNear is false until the element has come near the screen, or the page is printed. What is costly to draw waits for it; what is read aloud must not. */
export function useNear<E extends Element>(): [RefObject<E | null>, boolean] {
  const ref = useRef<E>(null)
  const [near, setNear] = useState(typeof IntersectionObserver === 'undefined')
  useEffect(() => {
    if (near || !ref.current) return
    const unwatch = watch(ref.current, () => setNear(true))
    // At once: the printer takes the page as it stands when the event is over.
    const print = () => flushSync(() => setNear(true))
    window.addEventListener('beforeprint', print)
    return () => {
      unwatch()
      window.removeEventListener('beforeprint', print)
    }
  }, [near])
  return [ref, near]
}
