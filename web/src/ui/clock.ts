/** clock writes seconds as 6:05. */
export function clock(seconds: number): string {
  const n = Math.round(seconds)
  return `${Math.floor(n / 60)}:${String(n % 60).padStart(2, '0')}`
}
