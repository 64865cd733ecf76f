import { fireEvent, screen, waitFor } from '@testing-library/react'
import { expect, it } from 'vitest'
import { open } from '../../testing/page'
import { serve } from '../../testing/server'
import SearchSheet from './SearchSheet'

const setUp = {
  players: [{ id: 'bo', first: 'Bo', last: 'Testerly', instrument: 'clarinet-bb' }],
  instruments: [{ key: 'clarinet-bb', name: 'B♭ clarinet' }],
}

it('goes where it was told, however quick the fingers were', async () => {
  let arrive = (_: unknown) => {}
  const arrived = new Promise((done) => {
    arrive = done
  })
  serve({
    'GET /classes': () => ({ classes: [] }),
    'GET /catalogue': () => ({ kinds: [] }),
    'GET /classes/c/tests': () => ({ tests: [] }),
    'GET /classes/c/set-up': () => arrived,
  })
  let closed = false
  const close = () => {
    closed = true
  }
  const page = open(<SearchSheet onClose={close} />, { at: '/class/c/listen', path: '/class/:classId/*' })
  const words = await screen.findByLabelText('What to look for')
  fireEvent.change(words, { target: { value: 'testerly bo' } })
  fireEvent.keyDown(words, { key: 'Enter' })
  expect(screen.getByRole('status').textContent).toContain('still coming')
  expect(closed).toBe(false)
  arrive(setUp)
  await waitFor(() => expect(page.where()).toBe('/class/c/player/bo'))
  expect(closed).toBe(true)
})
