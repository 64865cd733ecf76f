import { useEffect, useRef, useState } from 'react'
import type { Schemas } from '../api/client'
import Bars from './Bars'

/** Pixels until the room has been measured. */
const firstGuess = 340
/** Wider lines than this are hard to follow. */
const widest = 720

/** bars are a score's, or a phrase of it; says is what a screen reader hears in place of the drawing. */
type Props = { score: Schemas['Score']; bars: Schemas['Bar'][]; says: string }

/** Music engraves bars as wide as the room for them. */
export default function Music({ score, bars, says }: Props) {
  const room = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(firstGuess)
  useEffect(() => {
    const el = room.current
    if (!el) return
    const watch = new ResizeObserver(() => setWidth(Math.min(widest, Math.max(240, el.clientWidth))))
    watch.observe(el)
    return () => watch.disconnect()
  }, [])
  return (
    <div ref={room}>
      <Bars score={score} bars={bars} width={width} says={says} />
    </div>
  )
}
