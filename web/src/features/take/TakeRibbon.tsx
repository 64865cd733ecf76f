import { type MouseEvent, type RefObject, useState } from 'react'
import { WideRibbon } from '../../ribbon/WideRibbon'
import { Button } from '../../ui/Button'
import { SoundPlayer, useSound } from '../../ui/SoundPlayer'
import { LoopControls } from './LoopControls'
import type { TakeDetail } from './queries'
import { Spectrogram } from './Spectrogram'
import { useLoop } from './useLoop'

/** Pixels: the large ribbon is what the page is for. */
const height = 270

/** The audio element is the page's own; pressing the ribbon moves it. */
type Props = { take: TakeDetail; audio: RefObject<HTMLAudioElement | null> }

/** TakeRibbon is the large drawing with its sound: the cursor follows, a click seeks. */
export function TakeRibbon({ take, audio }: Props) {
  const { at } = useSound(audio)
  const loop = useLoop(audio)
  const [spectrogram, setSpectrogram] = useState(false)
  const ribbon = take.ribbon
  if (!ribbon) return null
  // Sound counts from the recording's start, the ribbon from the score's: this is the
  // difference, in seconds.
  const start = take.score_start_s
  function seek(e: MouseEvent<HTMLElement>) {
    const box = e.currentTarget.getBoundingClientRect()
    const share = (e.clientX - box.left) / box.width
    if (!audio.current || !ribbon) return
    audio.current.currentTime = Math.max(0, ribbon.from_s + share * (ribbon.to_s - ribbon.from_s) + start)
    // Whoever presses on a spot wants to hear it.
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
            <>
              {loop.from !== undefined && (
                <path
                  d={`M${x(loop.from - start)} ${height - 4}H${x((loop.to ?? at) - start)}`}
                  stroke="var(--warm)"
                  strokeWidth="5"
                  data-testid="loop"
                />
              )}
              {pinsOf(take).map((p) => (
                <path key={p} d={`M${x(p - start)} 0l5 9h-10z`} fill="var(--warm)" />
              ))}
              <path
                d={`M${x(at - start)} 0V${height}`}
                stroke="var(--warm)"
                strokeWidth="1.5"
                data-testid="cursor"
                opacity={at > 0 ? 1 : 0}
              />
            </>
          )}
        </WideRibbon>
      </div>
      {/* The pins are a drawing; a screen reader gets their seconds. */}
      {pinsOf(take).length > 0 && (
        <p className="sr-only">
          Comments are pinned at{' '}
          {pinsOf(take)
            .map((p) => `${p.toFixed(1)} s`)
            .join(', ')}
          .
        </p>
      )}
      {spectrogram && <Spectrogram takeId={take.id} fromS={ribbon.from_s + start} toS={ribbon.to_s + start} />}
      {take.sound_gone ? (
        <p className="px-3 pt-2 text-soft">
          The recording was kept as long as the class keeps them, and is gone. What was measured stays.
        </p>
      ) : (
        <div className="px-3 pt-2">
          <SoundPlayer src={`/api/takes/${take.id}/audio.wav`} label={`The take of ${take.player}`} audio={audio} />
          <div className="no-print flex flex-wrap items-center gap-3 pt-1 text-sm">
            <Button aria-pressed={spectrogram} onClick={() => setSpectrogram((s) => !s)}>
              {spectrogram ? 'Hide the spectrogram' : 'Spectrogram'}
            </Button>
            <LoopControls loop={loop} />
          </div>
        </div>
      )}
    </figure>
  )
}

/** pinsOf are the moments that comments are pinned to. */
function pinsOf(take: TakeDetail): number[] {
  return take.comments.flatMap((c) => (c.at_s === undefined ? [] : [c.at_s]))
}
