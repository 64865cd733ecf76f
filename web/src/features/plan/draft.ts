import { useCallback, useEffect, useRef, useState } from 'react'
import { Failure } from '../../api/client'
import { type Item, type Plan, useSavePlan } from './queries'

/** Kept is a draft that the server has not got yet; it outlives the page. */
type Kept = { based: number; items: Item[] }

/** keptKey is where a week's unsaved changes are kept on this device. */
const keptKey = (classId: string, monday: string) => `plan/${classId}/${monday}`

/**
 * readKept returns what is kept, or nothing where it cannot be read: storage may be
 * full, switched off, or another version's.
 */
function readKept(key: string): Kept | undefined {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') ?? undefined
  } catch {
    return undefined
  }
}

const saveAfter = 700 // milliseconds without a change
/** Steps that can be undone: an afternoon's planning. */
const mostUndo = 100

/**
 * How far a change has come. A conflict waits for the director: nobody's change is
 * thrown away unseen.
 */
export type Saving = 'saved' | 'waiting' | 'saving' | 'offline' | 'conflict'

/**
 * useDraft is a week being edited: with undo and redo, saved by itself a moment
 * after the last change, and kept on the device until it is.
 */
export function useDraft(classId: string, plan: Plan) {
  const key = keptKey(classId, plan.monday)
  const [start] = useState(() => readKept(key) ?? { based: plan.revision, items: plan.items })
  const [items, setItems] = useState(start.items)
  const [past, setPast] = useState<Item[][]>([])
  const [future, setFuture] = useState<Item[][]>([])
  const based = useRef(start.based)
  const [dirty, setDirty] = useState(start.items !== plan.items)
  const [problem, setProblem] = useState<unknown>()
  const [merged, setMerged] = useState(false)
  const { mutate, isPending } = useSavePlan(classId, plan.monday)
  const latest = useRef(items)
  latest.current = items

  const change = useCallback(
    (next: Item[]) => {
      setPast((p) => [...p.slice(-mostUndo), items])
      setFuture([])
      setItems(next)
      setDirty(true)
    },
    [items],
  )
  const step = (from: Item[][], setFrom: typeof setPast, setTo: typeof setPast) => {
    const to = from.at(-1)
    if (!to) return
    setFrom(from.slice(0, -1))
    setTo((f) => [...f, items])
    setItems(to)
    setDirty(true)
  }

  useEffect(() => {
    if (!dirty) return
    localStorage.setItem(key, JSON.stringify({ based: based.current, items } satisfies Kept))
    if (isPending || (problem instanceof Failure && problem.status < 500)) return
    const wait = setTimeout(
      () => {
        mutate(
          { based_on_revision: based.current, name: plan.name || 'Week', items },
          {
            onSuccess: (saved) => {
              setProblem(undefined)
              // What was changed while this was on its way is not saved yet: it goes next. After a
              // colleague's change it goes from where it was made, so that the server brings all
              // three together.
              if (latest.current !== items) {
                if (!saved.merged) based.current = saved.revision
                return
              }
              based.current = saved.revision
              setDirty(false)
              localStorage.removeItem(key)
              if (saved.merged) {
                setItems(saved.items)
                setMerged(true)
              }
            },
            onError: setProblem,
          },
        )
      },
      problem ? 5_000 : saveAfter,
    )
    return () => clearTimeout(wait)
  }, [dirty, items, isPending, problem, key, mutate, plan.name])

  const saving: Saving = !dirty
    ? 'saved'
    : isPending
      ? 'saving'
      : problem instanceof Failure && problem.status === 409
        ? 'conflict'
        : problem
          ? 'offline'
          : 'waiting'
  return {
    items,
    change: (next: Item[]) => {
      setProblem(undefined)
      change(next)
    },
    undo: past.length > 0 ? () => step(past, setPast, setFuture) : undefined,
    redo: future.length > 0 ? () => step(future, setFuture, setPast) : undefined,
    saving,
    problem,
    merged,
    /** takeTheirs gives the contradicting changes up. */
    takeTheirs: () => {
      localStorage.removeItem(key)
      based.current = plan.revision
      setItems(plan.items)
      setDirty(false)
      setProblem(undefined)
    },
    /** keepMine saves over theirs, on purpose. */
    keepMine: () => {
      based.current = plan.revision
      setProblem(undefined)
      setDirty(true)
    },
  }
}

/** A week being changed. */
export type Draft = ReturnType<typeof useDraft>
