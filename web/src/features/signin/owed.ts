import { answer, api } from '../../api/client'
import { isOffline } from '../../device/kept'

/** A sign-out without a network is owed to the server: until it is paid this device treats nobody as signed in. */
const owed = 'sign-out-owed'

/**
 * signOutIsOwed reports whether somebody signed out here without a network: until the
 * server knows, nobody is believed to be signed in.
 */
export function signOutIsOwed(): boolean {
  return localStorage.getItem(owed) !== null
}

/** oweSignOut remembers it over a closed page. */
export function oweSignOut() {
  localStorage.setItem(owed, 'yes')
}

/** forgiveSignOut drops the debt: signing in has put another session in the old one's place. */
export function forgiveSignOut() {
  localStorage.removeItem(owed)
}

/** paySignOut tells the server; false while it cannot be reached. */
export async function paySignOut(): Promise<boolean> {
  try {
    await answer(api.POST('/sign-out'))
  } catch (error) {
    if (isOffline(error)) return false
    throw error
  }
  forgiveSignOut()
  return true
}
