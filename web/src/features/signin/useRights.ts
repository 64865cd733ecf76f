import { useQuery } from '@tanstack/react-query'
import { meQuery } from './queries'

/** Who comes in by a pass looks, and changes nothing. */
const guests = ['assistant', 'substitute', 'family']

/** What the page offers somebody; what they may the server decides. */
export type Rights = { directs: boolean; hears: boolean }

/** useRights says whether to offer changes, and recordings. */
export function useRights(): Rights {
  // The page's head asks; here it is only looked at.
  const { data: me } = useQuery({ ...meQuery, enabled: false })
  const directs = !guests.includes(me?.role ?? '')
  return { directs, hears: directs || Boolean(me?.hears) }
}
