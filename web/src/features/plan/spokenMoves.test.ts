import { describe, expect, it } from 'vitest'
import { spokenMoves } from './spokenMoves'

const names = { a: 'Set-up', b: 'Swell' } as Record<string, string>
const spoken = spokenMoves(
  (key) => names[key] ?? '',
  (key) => Object.keys(names).indexOf(key) + 1,
  2,
).announcements
/** at is an end of a move, as the library tells of it. */
const at = (id: string) => ({ id }) as never

describe('a step moved by keys', () => {
  it('is told in words, by its name and its place', () => {
    expect(spoken.onDragStart({ active: at('a') })).toBe('Set-up is taken up, from place 1 of 2.')
    expect(spoken.onDragOver({ active: at('a'), over: at('b') })).toBe('Set-up is over place 2 of 2.')
    expect(spoken.onDragEnd({ active: at('a'), over: at('b') })).toBe('Set-up is put down at place 2 of 2.')
    expect(spoken.onDragEnd({ active: at('a'), over: null })).toBe('Set-up is put back.')
    expect(spoken.onDragCancel({ active: at('a'), over: null })).toBe('Set-up is put back where it was.')
  })
})
