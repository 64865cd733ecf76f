import 'fake-indexeddb/auto'
import { act, renderHook } from '@testing-library/react'
import type { ReactNode } from 'react'
import { expect, it } from 'vitest'
import { Outbox } from './outbox'
import { itemsOf, OutboxContext, useOutboxState } from './useOutbox'

it('draws again only for what is asked', () => {
  const outbox = new Outbox('ada')
  const wrapper = ({ children }: { children: ReactNode }) => <OutboxContext value={outbox}>{children}</OutboxContext>
  let drawn = 0
  const counted = () => {
    useOutboxState(itemsOf)
    drawn++
  }
  renderHook(counted, { wrapper })
  const coming = renderHook(() => useOutboxState((s) => s.coming), { wrapper })
  const before = drawn
  act(() => outbox.expect('t1'))
  expect(coming.result.current).toBe(1)
  expect(drawn).toBe(before)
})
