import { Failure } from './client'

/** putSound hands a recording in at an address of ours; it throws the server's own words. */
export async function putSound(address: string, body: Blob): Promise<void> {
  const response = await fetch(address, { method: 'PUT', body })
  if (!response.ok) throw new Failure(response.status, await response.json())
}
