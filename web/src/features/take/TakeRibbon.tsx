import type { MouseEvent, RefObject } from 'react'
import { WideRibbon } from '../../ribbon/WideRibbon'
import { SoundPlayer, useSound } from '../../ui/SoundPlayer'
import type { TakeDetail } from './queries'

const height = 270

type Props = { take: TakeDetail; audio: RefObject<HTMLAudioElement | null> }

/** TakeRibbon is the large drawing with its sound: the cursor follows, a click seeks. */
export function TakeRibbon({ take, audio }: Props) {
  const { at } = useSound(audio)
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
      <div className="px-3 pt-2">
        <SoundPlayer src={`/api/takes/${take.id}/audio.wav`} label={`The take of ${take.player}`} audio={audio} />
      </div>
    </figure>
  )
}
