import { useEffect, useRef } from 'react'
import { isKeyOfPage } from '../../ui/singleKeys'

/** What can be done from the front without looking at a screen. */
type Acts = {
  press: () => void
  back: () => void
  pause: () => void
  tap: () => void
  drone: () => void
  faster: () => void
  slower: () => void
}

/**
 * One key for each act. Clickers and foot switches send page keys, so those count as
 * pressing on and going back.
 */
const keys: Record<string, keyof Acts> = {
  ' ': 'press',
  Enter: 'press',
  ArrowRight: 'press',
  PageDown: 'press', // what a clicker sends
  ArrowLeft: 'back',
  PageUp: 'back',
  p: 'pause',
  t: 'tap',
  d: 'drone',
  '+': 'faster',
  '=': 'faster',
  '-': 'slower',
}

/** useFrontKeys drives class mode from the keyboard or a clicker. */
export function useFrontKeys(acts: Acts) {
  const now = useRef(acts)
  now.current = acts
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const act = keys[e.key.length === 1 ? e.key.toLowerCase() : e.key]
      // A clicker's keys are no letters: they work where single keys are off, too.
      const clicker = e.key.length > 1 && e.key !== 'Enter' && !e.ctrlKey && !e.metaKey
      if (!act || !(clicker || isKeyOfPage(e))) return
      e.preventDefault()
      now.current[act]()
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [])
}
