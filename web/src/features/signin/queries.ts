import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { answer, api, type Schemas } from '../../api/client'

export const meQuery = queryOptions({ queryKey: ['me'], queryFn: () => answer(api.GET('/me')) })

export const classesQuery = queryOptions({
  queryKey: ['classes'],
  queryFn: async () => (await answer(api.GET('/classes'))).classes,
})

/** useEntered forgets whoever was signed in before, and goes home. */
function useEntered() {
  const queries = useQueryClient()
  const navigate = useNavigate()
  return (me: Schemas['Me']) => {
    queries.clear()
    queries.setQueryData(meQuery.queryKey, me)
    navigate('/')
  }
}

export function useDirectorSignIn() {
  return useMutation({
    mutationFn: (body: { email: string; password: string }) => answer(api.POST('/sign-in/director', { body })),
    onSuccess: useEntered(),
  })
}

export function useOpenClass() {
  return useMutation({ mutationFn: (code: string) => answer(api.POST('/sign-in/class', { body: { code } })) })
}

export function usePlayerSignIn() {
  return useMutation({
    mutationFn: (body: { code: string; player_id: string; pin: string }) =>
      answer(api.POST('/sign-in/player', { body })),
    onSuccess: useEntered(),
  })
}

export function useSignOut() {
  const entered = useEntered()
  return useMutation({
    mutationFn: () => answer(api.POST('/sign-out')),
    onSuccess: () => entered({ role: 'nobody', name: '', class: '' }),
  })
}
