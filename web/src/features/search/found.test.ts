import { describe, expect, it } from 'vitest'
import { type Found, foundOf } from './found'

const places: Found[] = [
  { name: 'Today', what: 'page', to: '/class/c' },
  { name: 'Siân O’Brien', what: 'player, Clarinets', to: '/class/c/player/1' },
  { name: 'Ada Obrist', what: 'player, Flutes', to: '/class/c/player/2' },
  { name: 'Long tone, counted', what: 'exercise', to: '/class/c/plan?add=long-tone-counted' },
]

describe('what a search finds', () => {
  it('finds names without their accents, beginnings first', () => {
    expect(foundOf(places, 'sian').map((f) => f.to)).toEqual(['/class/c/player/1'])
    expect(foundOf(places, 'da').map((f) => f.name)).toEqual(['Today', 'Ada Obrist'])
    expect(foundOf(places, 'ad').map((f) => f.name)).toEqual(['Ada Obrist'])
    expect(foundOf(places, 't').map((f) => f.name)[0]).toBe('Today')
  })
  it('wants every word, in the name or in what it is', () => {
    expect(foundOf(places, 'ada flute')).toHaveLength(1)
    expect(foundOf(places, 'ada trumpet')).toHaveLength(0)
    expect(foundOf(places, '')).toHaveLength(4)
  })
})
