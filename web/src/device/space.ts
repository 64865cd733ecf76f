/** leastSpace is what a few long takes need, in bytes. */
const leastSpace = 30e6

/** askToStay asks the browser not to clear what is kept here when the device gets full. */
export function askToStay() {
  void navigator.storage?.persist?.().catch(() => {})
}

/** isTight reports whether the device has little room left for takes. */
export async function isTight(): Promise<boolean> {
  const { quota, usage } = (await navigator.storage?.estimate?.().catch(() => ({}) as StorageEstimate)) ?? {}
  return quota !== undefined && usage !== undefined && quota - usage < leastSpace
}
