/** A place one can go to: its name, what it is, and its address. */
export type Found = { name: string; what: string; to: string }

const most = 12

/** plain is a text without accents, apostrophes and case, as one writes in a hurry. */
const plain = (text: string) =>
  text
    .normalize('NFD')
    .replace(/[\p{Diacritic}'’]/gu, '')
    .toLowerCase()

/**
 * foundOf are the places that have all the words in their names, those that begin with the
 * first word before those that only have it. Without words it is the first places.
 */
export function foundOf(places: Found[], words: string): Found[] {
  const each = plain(words).split(/\s+/).filter(Boolean)
  const first = each[0] ?? ''
  const rank = (f: Found) =>
    plain(f.name)
      .split(/[\s-]/)
      .some((w) => w.startsWith(first))
      ? 0
      : 1
  return places
    .filter((f) => each.every((w) => plain(`${f.name} ${f.what}`).includes(w)))
    .map((f, n) => ({ f, n }))
    .sort((a, b) => rank(a.f) - rank(b.f) || a.n - b.n)
    .slice(0, most)
    .map(({ f }) => f)
}
