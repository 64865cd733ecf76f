import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '../../api/client'

/** todayQuery is the board; it looks again while the page is open, as takes come in. */
export const todayQuery = (classId: string, day?: string) =>
  queryOptions({
    queryKey: ['today', classId, day ?? 'today'],
    queryFn: () =>
      answer(api.GET('/classes/{class}/today', { params: { path: { class: classId }, query: day ? { day } : {} } })),
    refetchInterval: 4_000,
    placeholderData: (before) => before,
  })
