import { type ReactNode, useEffect, useRef, useState } from 'react'
import type { RibbonData } from './geometry'
import { Ribbon } from './Ribbon'

/** As the ribbon's, but the width: that is the page's. */
type Props = {
  ribbon: RibbonData
  height: number
  plain?: boolean
  children?: (x: (seconds: number) => number) => ReactNode
}

/**
 * Pixels until the page has been measured, so that the first drawing is not empty, and most
 * often right: as wide as the last, or as a phone's page between its margins.
 */
let latest = Math.min(800, window.innerWidth - 32)

/** WideRibbon fills its room pixel for pixel, so that its words stay readable on a phone. */
export function WideRibbon({ ribbon, height, plain = false, children }: Props) {
  const room = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(latest)
  useEffect(() => {
    const el = room.current
    if (!el) return
    const watch = new ResizeObserver(() => {
      latest = Math.max(200, el.clientWidth)
      setWidth(latest)
    })
    watch.observe(el)
    return () => watch.disconnect()
  }, [])
  return (
    <div ref={room} style={{ height }}>
      <Ribbon ribbon={ribbon} width={width} height={height} large plain={plain}>
        {children}
      </Ribbon>
    </div>
  )
}
