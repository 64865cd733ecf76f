/**
 * codeOfAddress is the code that a card's square or a link leads here with, after the #; it is
 * taken out of the address at once, for it may be a shared machine's.
 */
export function codeOfAddress(): string {
  const code = decodeURIComponent(window.location.hash.slice(1))
  if (code) window.history.replaceState(window.history.state, '', window.location.pathname)
  return code
}
