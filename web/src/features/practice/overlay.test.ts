import { expect, it } from 'vitest'
import type { Item } from '../../device/outbox'
import { shown, withDevice } from './overlay'
import type { Practice } from './queries'

const practice = {
  day: '2026-11-26',
  steps: [
    { id: 'a', score: { kind: 'long-tone-longest' }, takes: [], recent_tips: ['old'], best_s: 6, ticked: [] },
    {
      id: 'b',
      score: { kind: 'ladder', rung: 1 },
      takes: [],
      recent_tips: [],
      ticked: [false],
      ladder: { key: 'break', rung: 1 },
    },
  ],
} as unknown as Practice

const take = (id: string, step: string, result: string, more = {}): Item =>
  ({
    id,
    state: 'waiting',
    kind: 'take',
    madeAt: 1,
    take: {
      step,
      day: '2026-11-26',
      heard: { verdict: { result, tip: { key: 'tip' } }, best: result, longest_s: 9 },
      ...more,
    },
  }) as unknown as Item

it('shows a take of this device with its word, its tip and its best', () => {
  const [a] = withDevice(practice, [take('1', 'a', 'nearly')])
  expect(a?.takes[0]).toMatchObject({ id: '1', state: 'kept', result: 'nearly' })
  expect(a?.result).toBe('nearly')
  expect(a?.recent_tips).toEqual(['tip', 'old'])
  expect(a?.best_s).toBe(9)
})

it('shows the best of the day as the core had it with each take', () => {
  const second = take('2', 'a', 'not-yet')
  if (second.take?.heard) second.take.heard.best = 'clean'
  const [a] = withDevice(practice, [take('1', 'a', 'clean'), second])
  expect(a?.result).toBe('clean')
  expect(a?.takes.map((t) => t.id)).toEqual(['2', '1'])
})

it('counts takes of a test that the server does not know yet, but none that cannot be judged', () => {
  const step = { ...practice.steps[0], test: { due: '2026-11-27', takes: 2, counts: 'best', used: 0 } }
  const tested = { ...practice, steps: [step] } as unknown as Practice
  const used = (...items: Item[]) => withDevice(tested, items)[0]?.test?.used
  expect(used(take('1', 'a', 'nearly'))).toBe(1)
  expect(used(take('1', 'a', 'cant-tell'))).toBe(0)
  expect(used(take('1', 'a', 'clean'), take('2', 'a', 'clean'), take('3', 'a', 'clean'))).toBe(2)
  const waiting = { ...step, takes: [{ id: '1', state: 'waiting' }], test: { ...step.test, used: 1 } }
  const served = { ...practice, steps: [waiting] } as unknown as Practice
  expect(withDevice(served, [take('1', 'a', 'nearly')])[0]?.test?.used).toBe(1)
})

it('leads the ladder on, and back', () => {
  const climbed = take('1', 'b', 'clean', { ladder: { key: 'break', rung: 2 } })
  expect(withDevice(practice, [climbed])[1]?.ladder?.rung).toBe(2)
  const back = {
    id: '2',
    kind: 'told',
    state: 'waiting',
    message: { ladder: { key: 'break', rung: 1 } },
  } as unknown as Item
  expect(withDevice(practice, [climbed, back])[1]?.ladder?.rung).toBe(1)
})

it('lets the server have the last word, and yesterday its own day', () => {
  const served = {
    ...practice,
    steps: [{ ...practice.steps[0], takes: [{ id: '1', state: 'done', result: 'nearly' }], result: 'nearly' }],
  }
  const heard = { ...take('1', 'a', 'clean'), state: 'sent' } as Item
  const [a] = withDevice(served as unknown as Practice, [heard])
  expect(a?.result).toBe('nearly')
  expect(shown(served as unknown as Practice, [heard], 0)).toEqual(['1'])
  expect(withDevice(practice, [take('1', 'a', 'clean', { day: '2026-11-25' })])[0]?.takes).toEqual([])
})

it('keeps a tick in view until an answer was asked for after it was sent', () => {
  const tick = {
    id: 't',
    kind: 'told',
    state: 'sent',
    sentAt: 100,
    message: { step: 'b', ticked: [true] },
  } as unknown as Item
  expect(withDevice(practice, [tick])[1]?.ticked).toEqual([true])
  expect(shown(practice, [tick], 90)).toEqual([])
  expect(shown(practice, [tick], 110)).toEqual(['t'])
})
