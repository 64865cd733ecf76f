import { expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { shownOf, type View, viewOf } from './view'

type Cell = Partial<Schemas['BoardCell']>

const player = (name: string, ...cells: Cell[]) => ({ id: name, name, instrument: 'Flute', cells })
const today = {
  sections: [
    {
      name: 'Flutes',
      played: 2,
      players: [
        player('Ann', { state: 'done', result: 'clean', take_id: 'a' }),
        player('Bea', { state: 'done', result: 'not-yet', take_id: 'b' }),
        player('Cal', { state: 'missing' }),
      ],
    },
    { name: 'Tubas', played: 0, players: [player('Dot', { state: 'missing' })] },
  ],
  common: [{ section: 'Flutes', step: 's', cause: 'gap', takes: ['b'], players: 1, of: 2, sentence: '' }],
} as unknown as Schemas['Today']

const all: View = { section: null, show: null, sort: null, common: null }
const names = (view: Partial<View>) => shownOf(today, { ...all, ...view }).flatMap((s) => s.players.map((p) => p.name))

it('shows everybody until something is chosen', () => {
  expect(names({})).toEqual(['Ann', 'Bea', 'Cal', 'Dot'])
})

it('narrows to a section, a result, or the takes behind a sentence', () => {
  expect(names({ section: 'Tubas' })).toEqual(['Dot'])
  expect(names({ show: 'not-yet' })).toEqual(['Bea'])
  expect(names({ show: 'missing' })).toEqual(['Cal', 'Dot'])
  expect(names({ common: 'Flutes~s~gap' })).toEqual(['Bea'])
  expect(names({ section: 'Tubas', show: 'clean' })).toEqual([])
})

it('puts who needs an ear first, inside the section', () => {
  expect(names({ sort: 'need' })).toEqual(['Bea', 'Cal', 'Ann', 'Dot'])
})

it('reads its choice from the address bar', () => {
  expect(viewOf(new URLSearchParams('section=Flutes&sort=need'))).toEqual({ ...all, section: 'Flutes', sort: 'need' })
})
