import { useQuery } from '@tanstack/react-query'
import { classesQuery } from '../signin'

/** useClassName is a class's name, once the director's classes are known. */
export function useClassName(classId: string): string {
  const classes = useQuery(classesQuery)
  return classes.data?.find((c) => c.id === classId)?.name ?? ''
}
