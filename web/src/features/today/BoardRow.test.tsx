import { render, screen } from '@testing-library/react'
import { expect, it, vi } from 'vitest'
import { BoardRow } from './BoardRow'

const empty = { takes: 0, comments: 0, earlier: false, overruled: false, simulated: false, written: 'C5' }
const played = { ...empty, state: 'done', result: 'clean', takes: 1, take_id: 't' } as const

const row = (cells: Parameters<typeof BoardRow>[0]['player']['cells']) =>
  render(
    <table>
      <tbody>
        <BoardRow
          classId="c"
          rights={{ directs: true, hears: true } as Parameters<typeof BoardRow>[0]['rights']}
          onActs={() => {}}
          player={{ id: 'p', name: 'Wren Saltmarsh', instrument: 'Flute', cells }}
        />
      </tbody>
    </table>,
  )

it('tells the ear of a cell what there is to tell', () => {
  row([{ ...played, simulated: true }, played, { ...played, simulated: true, deciding: 'C5 flat' }])
  const told = screen.getAllByRole('link').map((link) => link.getAttribute('aria-label'))
  expect(told).toEqual([
    null, // the name's own link
    'Wren Saltmarsh: clean. simulated',
    'Wren Saltmarsh: clean',
    'Wren Saltmarsh: clean. C5 flat, simulated',
  ])
})

it('tells the ear every cell of a row that is still far from the screen', () => {
  vi.stubGlobal(
    'IntersectionObserver',
    class {
      observe() {}
      unobserve() {}
    },
  )
  row([played, { ...empty, state: 'missing' }, { ...empty, state: 'excused' }])
  expect(screen.getByRole('link', { name: 'Wren Saltmarsh' })).toBeTruthy()
  expect(screen.getByRole('cell').textContent).toBe('clean, not played, excused')
  expect(screen.getByRole('cell').getAttribute('colspan')).toBe('3')
})
