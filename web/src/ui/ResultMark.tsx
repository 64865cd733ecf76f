import type { Schemas } from '../api/client'

/** A take's result, or why there is none: nothing was played, it is being heard, the ear failed. */
export type Result = Schemas['Said']['result'] | 'missing' | 'waiting' | 'failed'

/** resultWords are the results as they are always said. */
export const resultWords: Record<Result, string> = {
  clean: 'clean',
  nearly: 'nearly',
  'not-yet': 'not yet',
  'cant-tell': 'can’t tell',
  missing: 'not played',
  waiting: 'listening',
  failed: 'failed',
}

/** One colour for each result; the shape says the same without it. */
const colours: Record<Result, string> = {
  clean: 'text-clean',
  nearly: 'text-nearly',
  'not-yet': 'text-not-yet',
  'cant-tell': 'text-cant-tell',
  missing: 'text-soft',
  waiting: 'text-soft',
  failed: 'text-cant-tell',
}

/** size is the height in pixels. withWord writes the result beside the mark, which is then ornament. */
type Props = {
  result: Result
  overruled?: boolean
  withWord?: boolean
  size?: number
  /** what stands around it says it already */
  silent?: boolean
}

/**
 * ResultMark tells a result by shape: a note's head filled as far as the step
 * is done. An underline says that it is the director's word.
 */
export function ResultMark({ result, overruled, withWord, size = 18, silent }: Props) {
  const words = resultWords[result] + (overruled ? ', the director’s word' : '')
  return (
    <span className={`inline-flex items-center gap-1.5 ${colours[result]}`} data-result={result}>
      {/* biome-ignore lint/a11y/noSvgWithoutTitle: it has one, unless its words stand around it */}
      <svg width={size * 1.3} height={size} viewBox="0 0 26 20" aria-hidden={withWord || silent} role="img">
        {!withWord && !silent && <title>{words}</title>}
        <Shape result={result} />
        {overruled && <path d="M3 19h20" stroke="currentColor" strokeWidth="2" />}
      </svg>
      {withWord && <span>{words}</span>}
    </span>
  )
}

/**
 * Shape is a note's head, whole, half or open. What is no result is no head: a wave for
 * what the ear cannot tell, a cross, three dots and a dash for what has not been heard.
 */
function Shape({ result }: { result: Result }) {
  const head = { cx: 13, cy: 9, rx: 9, ry: 6.4, transform: 'rotate(-18 13 9)' }
  const line = { fill: 'none', stroke: 'currentColor', strokeWidth: 2.2 }
  switch (result) {
    case 'clean':
      return <ellipse {...head} fill="currentColor" stroke="currentColor" strokeWidth={2.2} />
    case 'nearly':
      return (
        <>
          <path d="M4.27 9.6A9 6.4 -18 0 0 21.41 9.6Z" fill="currentColor" />
          <ellipse {...head} {...line} />
        </>
      )
    case 'not-yet':
      return <ellipse {...head} {...line} />
    case 'cant-tell':
      return <path d="M3 11c3-6 7-6 10-2s7 4 10-2" {...line} strokeWidth={2.6} />
    case 'failed':
      return <path d="M6 3l14 12M20 3L6 15" {...line} />
    case 'waiting':
      return <path d="M5 9h.1M13 9h.1M21 9h.1" {...line} strokeWidth={4} strokeLinecap="round" />
    default:
      return <path d="M9 9h8" {...line} strokeWidth={1.6} />
  }
}
