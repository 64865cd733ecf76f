import type { ReactNode } from 'react'

/** strokes are the small drawings beside what is ticked, in a square of 48. The words beside them say the same. */
const strokes: Record<string, ReactNode> = {
  sit: (
    <>
      <circle cx="22" cy="8" r="4.5" />
      <path d="M22 13v15h11v13M22 28v-6M14 28h19M16 28v13M34 41h4M36 20v8" />
    </>
  ),
  feet: <path d="M6 40h36M13 12v22c0 3 2 5 5 5h5M27 12v22c0 3 2 5 5 5h6" />,
  shoulders: (
    <>
      <circle cx="24" cy="11" r="5.5" />
      <path d="M24 17v5M24 22c-8 1-12 4-14 10M24 22c8 1 12 4 14 10M10 14v8m-3-3 3 4 3-4M38 14v8m-3-3 3 4 3-4" />
    </>
  ),
  hold: (
    <path d="M6 30 42 12M14 35c-1-6 1-9 5-11M19 32c-1-6 1-9 5-11M24 30c-1-6 1-9 5-11M12 38c5 2 12 0 17-5M33 20c4 0 6 3 5 8" />
  ),
  mouth: (
    <>
      <rect x="8" y="5" width="32" height="38" rx="4" />
      <circle cx="24" cy="22" r="11" />
      <path d="M18 26c3-2 9-2 12 0-3 2-9 2-12 0zM20 19h.1M28 19h.1" />
    </>
  ),
  air: (
    <path d="M6 16c8-4 14 4 22 0 6-3 10-8 6-11s-8 1-6 5M6 25c10-4 18 4 30 0M6 34c8-4 14 4 22 0 6-2 11 3 8 7s-8 1-6-3" />
  ),
  dry: <path d="M10 14c6-6 10 4 16-2s8-2 12 2l-3 22c-5 4-9-2-13 2s-9 1-12-3zM16 20c4-3 6 3 10 0M16 28c4-3 6 3 10 0" />,
  reed: <path d="M18 6c0-3 12-3 12 0v30c0 4-12 4-12 0zM18 18c4 3 8 3 12 0M8 43h32" />,
  water: <path d="M24 6c8 11 12 16 12 23a12 12 0 0 1-24 0c0-7 4-12 12-23zM18 30c0 4 3 7 6 7" />,
  oil: <path d="M14 20h14v20H14zM18 20v-6h6v6M24 14l8-8M34 10c3 4 4 6 4 8a4 4 0 0 1-8 0c0-2 1-4 4-8z" />,
  brush: <path d="M6 42 26 22M26 22l4-4M28 24c6-1 10-5 13-12-7 3-11 7-12 13zM31 13l4 4M27 17l4 4M35 21l-4-4" />,
  look: (
    <>
      <circle cx="20" cy="20" r="12" />
      <path d="m29 29 12 12M15 20a5 5 0 0 1 5-5" />
    </>
  ),
  case: (
    <>
      <rect x="4" y="16" width="40" height="22" rx="4" />
      <path d="M18 16v-4h12v4M4 26h40M14 24v4M34 24v4" />
    </>
  ),
  join: <path d="M4 18h14v12H4zM22 20h6v8h-6zM28 18h16v12H28zM14 38c6 5 14 5 20 0m-1 5 1-5-5-1" />,
  'line-up': <path d="M6 24h36M10 18h10v12H10zM28 18h10v12H28zM24 8v6M24 34v6" strokeDasharray="none" />,
  strap: <path d="M14 6c-4 14 0 22 10 30 10-8 14-16 10-30M24 36v4m-4 3c0-3 8-3 8 0" />,
  mouthpiece: <path d="M8 18c6 0 6 3 12 4l20 1v2l-20 1c-6 1-6 4-12 4zM30 34c3 4 7 4 10 1m0 4v-4h-4" />,
  lift: <path d="M8 30c0 8 32 8 32 0M14 26v-6M34 26v-6M24 22V6m-6 6 6-6 6 6" />,
  slide: (
    <>
      <path d="M6 18h30a6 6 0 0 1 0 12H6M6 14v8M6 26v8" />
      <circle cx="20" cy="24" r="4" />
      <path d="M20 20v-4M20 28v4" />
    </>
  ),
  ask: <path d="M6 10h36v22H22l-9 9v-9H6zM20 18c0-5 8-5 8 0 0 3-4 3-4 6M24 28h.1" />,
}

/**
 * Picture draws what the core names; a name it does not know draws nothing, and the
 * words beside it are enough.
 */
export function Picture({ name }: { name: string | undefined }) {
  if (!name || !strokes[name]) return null
  return (
    <svg
      viewBox="0 0 48 48"
      className="size-12 shrink-0 text-soft"
      fill="none"
      stroke="currentColor"
      strokeWidth="2"
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden
    >
      {strokes[name]}
    </svg>
  )
}
