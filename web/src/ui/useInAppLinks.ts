import { type RefObject, useEffect, useRef } from 'react'
import { useNavigate } from 'react-router'

/** useInAppLinks follows the plain links inside an element without loading the page anew: one listener where there are hundreds of links. */
export function useInAppLinks<E extends HTMLElement>(): RefObject<E | null> {
  const navigate = useNavigate()
  const ref = useRef<E>(null)
  useEffect(() => {
    const within = ref.current
    const follow = (e: MouseEvent) => {
      if (e.defaultPrevented || e.button !== 0 || e.metaKey || e.ctrlKey || e.shiftKey || e.altKey) return
      const to = (e.target as Element).closest('a[href^="/"]:not([target]):not([download])')?.getAttribute('href')
      if (!to) return
      e.preventDefault()
      void navigate(to)
    }
    within?.addEventListener('click', follow)
    return () => within?.removeEventListener('click', follow)
  }, [navigate])
  return ref
}
