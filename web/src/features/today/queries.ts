import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '../../api/client'

/** todayQuery is the board; it looks again when the class's line says so (useLive), and now and then should the line be cut. */
export const todayQuery = (classId: string, day?: string) =>
  queryOptions({
    queryKey: ['today', classId, day ?? 'today'],
    queryFn: () =>
      answer(api.GET('/classes/{class}/today', { params: { path: { class: classId }, query: day ? { day } : {} } })),
    refetchInterval: 60_000,
    placeholderData: (before) => before,
  })
