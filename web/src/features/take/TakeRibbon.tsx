import { type MouseEvent, type RefObject, useEffect, useState } from 'react'
import { WideRibbon } from '../../ribbon/WideRibbon'
import type { TakeDetail } from './queries'

const height = 270

type Props = { take: TakeDetail; audio: RefObject<HTMLAudioElement | null> }

/** TakeRibbon is the large drawing with its sound: the cursor follows, a click seeks. */
export function TakeRibbon({ take, audio }: Props) {
  const at = useCursor(audio)
  const ribbon = take.ribbon
  if (!ribbon) return null
  const start = take.score_start_s
  function seek(e: MouseEvent<HTMLElement>) {
    const box = e.currentTarget.getBoundingClientRect()
    const share = (e.clientX - box.left) / box.width
    if (!audio.current || !ribbon) return
    audio.current.currentTime = Math.max(0, ribbon.from_s + share * (ribbon.to_s - ribbon.from_s) + start)
    void audio.current.play()
  }
  return (
    <figure className="border-y border-rule bg-sheet py-3">
      {/* Keyboards seek with the player below and the list of events; the drawing is a shortcut for the mouse. */}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: see above */}
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: see above */}
      <div onClick={seek} className="cursor-crosshair" data-testid="large-ribbon">
        <WideRibbon ribbon={ribbon} height={height}>
          {(x) => (
            <path
              d={`M${x(at - start)} 0V${height}`}
              stroke="var(--warm)"
              strokeWidth="1.5"
              data-testid="cursor"
              opacity={at > 0 ? 1 : 0}
            />
          )}
        </WideRibbon>
      </div>
      {/* biome-ignore lint/a11y/useMediaCaption: a long tone has no words; the ribbon's text says what sounds */}
      <audio ref={audio} controls preload="metadata" src={`/api/takes/${take.id}/audio.wav`} className="mt-2 w-full" />
    </figure>
  )
}

/** useCursor follows the sound, once a frame while it plays. */
function useCursor(audio: RefObject<HTMLAudioElement | null>): number {
  const [at, setAt] = useState(0)
  useEffect(() => {
    const el = audio.current
    if (!el) return
    let frame = 0
    const follow = () => {
      setAt(el.currentTime)
      if (!el.paused) frame = requestAnimationFrame(follow)
    }
    const events = ['play', 'seeked', 'pause', 'timeupdate'] as const
    for (const e of events) el.addEventListener(e, follow)
    return () => {
      cancelAnimationFrame(frame)
      for (const e of events) el.removeEventListener(e, follow)
    }
  }, [audio])
  return at
}
