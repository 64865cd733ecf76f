/** className places the drawing; its colour is that of the words around it. */
type Props = { className?: string }

// Small drawings of our own: each stands beside words or a label, so that a
// screen reader passes over it.

/** PlayIcon is the triangle of every player. */
export function PlayIcon({ className }: Props) {
  return (
    <svg viewBox="0 0 18 18" width={18} height={18} aria-hidden="true" className={className}>
      <path d="M5 3.2v11.6L14.5 9z" fill="none" stroke="currentColor" strokeWidth={1.6} strokeLinejoin="round" />
    </svg>
  )
}

/** PauseIcon is the two bars. */
export function PauseIcon({ className }: Props) {
  return (
    <svg viewBox="0 0 18 18" width={18} height={18} aria-hidden="true" className={className}>
      <path d="M6 3.5v11M12 3.5v11" stroke="currentColor" strokeWidth={2.4} strokeLinecap="round" />
    </svg>
  )
}

/** GripIcon marks what can be taken hold of and moved. */
export function GripIcon({ className }: Props) {
  return (
    <svg viewBox="0 0 18 18" width={18} height={18} aria-hidden="true" className={className}>
      {[6, 12].flatMap((x) =>
        [4, 9, 14].map((y) => <circle key={`${x} ${y}`} cx={x} cy={y} r={1.4} fill="currentColor" />),
      )}
    </svg>
  )
}
