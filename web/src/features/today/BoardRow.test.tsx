import { render, screen } from '@testing-library/react'
import { expect, it, vi } from 'vitest'
import { BoardRow } from './BoardRow'

it('tells the ear every cell of a row that is still far from the screen', () => {
  vi.stubGlobal(
    'IntersectionObserver',
    class {
      observe() {}
      unobserve() {}
    },
  )
  const empty = { takes: 0, comments: 0, earlier: false, overruled: false, simulated: false, written: 'C5' }
  const played = { ...empty, state: 'done', result: 'clean', takes: 1, take_id: 't' } as const
  render(
    <table>
      <tbody>
        <BoardRow
          classId="c"
          rights={{ directs: true, hears: true } as Parameters<typeof BoardRow>[0]['rights']}
          onActs={() => {}}
          player={{
            id: 'p',
            name: 'Wren Saltmarsh',
            instrument: 'Flute',
            cells: [played, { ...empty, state: 'missing' }, { ...empty, state: 'excused' }],
          }}
        />
      </tbody>
    </table>,
  )
  expect(screen.getByRole('link', { name: 'Wren Saltmarsh' })).toBeTruthy()
  expect(screen.getByRole('cell').textContent).toBe('clean, not played, excused')
  expect(screen.getByRole('cell').getAttribute('colspan')).toBe('3')
})
