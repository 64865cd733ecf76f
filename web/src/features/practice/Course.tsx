import type { Schemas } from '../../api/client'

/** Course says in one line what comes after what, from the first breath to the end. */
export function Course({ task }: { task: Schemas['Task'] }) {
  if (task.course.length === 0) return null
  return (
    <p className="mt-3 border-y border-rule py-2 text-sm leading-6">
      {task.course.map((p, n) => (
        // A course is told by its order alone.
        // biome-ignore lint/suspicious/noArrayIndexKey: see above
        <span key={n} className={p.sounds ? 'font-serif text-base' : 'text-soft'}>
          {n > 0 && <span className="text-edge"> · </span>}
          {p.says.replace(/ (beats?)\b/, '\u00a0$1')}
        </span>
      ))}
      {task.times > 1 && <span className="text-soft"> · {task.times} times</span>}
    </p>
  )
}
