import { useEffect } from 'react'
import type { Draft } from './draft'

/** useKeys undoes and redoes with the usual keys, but not while something is being typed. */
export function useKeys(draft: Draft) {
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const typing = e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement
      if (typing || !(e.ctrlKey || e.metaKey)) return
      const key = e.key.toLowerCase()
      const act = key === 'y' || (key === 'z' && e.shiftKey) ? draft.redo : key === 'z' ? draft.undo : undefined
      if (!act) return
      e.preventDefault()
      act()
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [draft.undo, draft.redo])
}
