import { screen, within } from '@testing-library/react'
import { expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { open } from '../../testing/page'
import { serve } from '../../testing/server'
import { MyProgress } from './MyProgress'

const growth = (notes: Schemas['GrowthNote'][]) => ({
  days: [],
  weeks: [],
  ladders: [],
  comments: [],
  notes,
  tone: { days: 0, says: '', turns: [] },
  today: '2026-11-28',
})

it('says which notes come out, and which are on the way, by name alone', async () => {
  serve({
    'GET /practice/growth': () =>
      growth([
        { sounding_midi: 58, called: 'low C', takes: 9, good: 8, comes: true },
        { sounding_midi: 65, called: 'G', takes: 4, good: 0, comes: false },
      ]),
  })
  open(<MyProgress />)
  const section = (await screen.findByRole('heading', { name: 'Notes I can play' })).closest('section') as HTMLElement
  const lists = within(section).getAllByRole('list')
  expect(lists.map((l) => l.textContent)).toEqual(['low C', 'G'])
  expect(section.textContent).not.toMatch(/\d/)
})

it('says nothing of notes before one was played', async () => {
  serve({ 'GET /practice/growth': () => growth([]) })
  open(<MyProgress />)
  await screen.findByText(/Record your first long tone/)
  expect(screen.queryByText('Notes I can play')).toBeNull()
})
