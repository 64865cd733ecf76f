import type { Announcements } from '@dnd-kit/core'

/** spokenMoves says in words what a screen reader hears while a step is moved; nameOf and placeOf know the steps. */
export function spokenMoves(nameOf: (key: string) => string, placeOf: (key: string) => number, count: number) {
  const at = (key: string) => `place ${placeOf(key)} of ${count}`
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${nameOf(String(active.id))} is taken up, from ${at(String(active.id))}.`,
    onDragOver: ({ active, over }) =>
      over ? `${nameOf(String(active.id))} is over ${at(String(over.id))}.` : undefined,
    onDragEnd: ({ active, over }) =>
      over
        ? `${nameOf(String(active.id))} is put down at ${at(String(over.id))}.`
        : `${nameOf(String(active.id))} is put back.`,
    onDragCancel: ({ active }) => `${nameOf(String(active.id))} is put back where it was.`,
  }
  return {
    announcements,
    screenReaderInstructions: {
      draggable:
        'Press Space to take the step up, the arrow keys to move it, Space to put it down, Escape to put it back.',
    },
  }
}
