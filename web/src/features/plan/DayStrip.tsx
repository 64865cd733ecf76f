import { DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'
import { clock } from '../../ui/clock'
import { shortDay } from '../../ui/days'
import { GripIcon } from '../../ui/icons'
import type { Item, Kind } from './queries'
import { spokenMoves } from './spokenMoves'

/** work is what the day asks of the band, once it is worked out; rows show without it. */
type Props = {
  items: Item[]
  kinds: Kind[]
  work?: Schemas['DayWork']
  chosen?: string
  onChoose: (key: string) => void
  onReorder: (keys: string[]) => void
  onRemove: (key: string) => void
}

/** DayStrip is a day's steps in order, to be moved by hand or by keys. */
export function DayStrip({ items, kinds, work, chosen, onChoose, onReorder, onRemove }: Props) {
  const sensors = useSensors(
    // Five pixels, so that a press on the grip that trembles is no move.
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const keys = items.map((i) => i.key)
  const end = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) {
      onReorder(arrayMove(keys, keys.indexOf(String(active.id)), keys.indexOf(String(over.id))))
    }
  }
  const nameOf = (key: string) => {
    const item = items.find((i) => i.key === key)
    return item?.called || (kinds.find((k) => k.key === item?.kind)?.name ?? 'The step')
  }
  const spoken = spokenMoves(nameOf, (key) => keys.indexOf(key) + 1, keys.length)
  if (items.length === 0) {
    return <p className="mt-6 text-soft">Nothing on this day yet. Choose an exercise from the catalogue on the left.</p>
  }
  // The class's order is offered only where the day differs from it; it is never forced.
  const sorted = work && work.order.length === keys.length && work.order.every((k, n) => k === keys[n])
  return (
    <>
      <DndContext sensors={sensors} onDragEnd={end} accessibility={spoken}>
        <SortableContext items={keys} strategy={verticalListSortingStrategy}>
          <ol className="mt-3 border-t border-rule">
            {items.map((item, n) => (
              <Row
                key={item.key}
                n={n + 1}
                item={item}
                name={nameOf(item.key)}
                work={work?.items.find((w) => w.key === item.key)}
                chosen={item.key === chosen}
                onChoose={() => onChoose(item.key)}
                onRemove={() => onRemove(item.key)}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {work && !sorted && work.order.length > 1 && (
        <p className="mt-3 text-sm">
          <Button onClick={() => onReorder(work.order)}>Sort by the class’s order</Button>{' '}
          <span className="text-soft">{work.reason}</span>
        </p>
      )}
    </>
  )
}

/** n is the place in the day, from 1, which a screen reader says. */
type RowProps = {
  n: number
  item: Item
  name: string
  work?: Schemas['ItemWork']
  chosen: boolean
  onChoose: () => void
  onRemove: () => void
}

/** Row can be taken hold of at its grip alone: the rest of it chooses the step. */
function Row({ n, item, name, work, chosen, onChoose, onRemove }: RowProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: item.key })
  return (
    <li
      ref={setNodeRef}
      // Moved, not scaled: a row keeps its height while it passes higher ones.
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`flex items-stretch border-b border-rule bg-paper ${chosen ? 'border-l-4 border-l-warm bg-sheet' : 'border-l-4 border-l-transparent'}`}
      // The name is for the tests that look a row up.
      data-step={name}
    >
      <button
        type="button"
        className="w-8 shrink-0 cursor-grab touch-none text-soft"
        aria-label={`Move ${name}`}
        {...attributes}
        {...listeners}
      >
        <GripIcon className="mx-auto" />
      </button>
      <button type="button" className="min-w-0 flex-1 py-2 text-left" aria-pressed={chosen} onClick={onChoose}>
        <span className="flex items-baseline gap-2">
          <span className="w-5 font-serif text-soft">{n}</span>
          <span className="font-serif">{name}</span>
          {item.test && <span className="text-xs text-warm">test, due {shortDay(item.test.due)}</span>}
          {item.pinned && <span className="text-xs text-soft">pinned</span>}
          {/* The usual is not said: a word on every row is a word on none. */}
          {item.wanted !== 2 && (
            <span className="text-xs text-soft">{item.wanted === 3 ? 'must' : 'if there is room'}</span>
          )}
        </span>
        {/* The sentence begins with the kind's name, which stands above already. */}
        <span className="block truncate pl-7 text-sm text-soft">{work?.sentence.split(': ').slice(1).join(': ')}</span>
        {/* Whom a step is not for is said at once, not when the class has begun. */}
        {work && work.left_out.length > 0 && (
          <span className="block truncate pl-7 text-xs text-soft">not for {work.left_out.join(', ')}</span>
        )}
      </button>
      <span className="self-center px-2 text-sm tabular-nums">{work && clock(work.seconds)}</span>
      <button
        type="button"
        aria-label={`Take ${name} off`}
        className="w-9 shrink-0 text-soft hover:text-ink"
        onClick={onRemove}
      >
        ×
      </button>
    </li>
  )
}
