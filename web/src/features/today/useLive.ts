import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'

/** useLive looks at the board again whenever something happens in the class. */
export function useLive(classId: string) {
  const queries = useQueryClient()
  useEffect(() => {
    const line = new EventSource(`/api/classes/${classId}/events`)
    line.addEventListener('changed', () => {
      void queries.invalidateQueries({ queryKey: ['today', classId] })
      void queries.invalidateQueries({ queryKey: ['flags', classId] })
    })
    return () => line.close()
  }, [queries, classId])
}
