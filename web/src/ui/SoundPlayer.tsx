import { Slider } from 'radix-ui'
import { type RefObject, useEffect, useRef, useState } from 'react'
import { PauseIcon, PlayIcon } from './icons'

/** preload "none" is for lists: thirty players must not ask for thirty recordings before one is played. */
type Props = {
  src: string
  /** label names the sound to a screen reader: "Ada's take" */
  label: string
  /** audio lets others seek in the sound */
  audio?: RefObject<HTMLAudioElement | null>
  preload?: 'none' | 'metadata'
}

/** SoundPlayer plays a recording: play and pause, where it is, and a line to seek on. */
export function SoundPlayer({ src, label, audio, preload = 'metadata' }: Props) {
  const own = useRef<HTMLAudioElement>(null)
  const ref = audio ?? own
  const { at, length, playing } = useSound(ref)
  function toggle() {
    const el = ref.current
    if (!el) return
    if (playing) el.pause()
    else void el.play()
  }
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset would be read as a form
    <div role="group" aria-label={label} className="flex items-center gap-4">
      {/* biome-ignore lint/a11y/useMediaCaption: a long tone has no words; the ribbon's text says what sounds */}
      <audio ref={ref} src={src} preload={preload} />
      <button
        type="button"
        onClick={toggle}
        aria-label={playing ? 'Pause' : 'Play'}
        className="inline-flex size-11 shrink-0 items-center justify-center rounded-full border border-edge bg-sheet hover:border-ink"
      >
        {playing ? <PauseIcon /> : <PlayIcon className="translate-x-px" />}
      </button>
      <Slider.Root
        value={[Math.min(at, length)]}
        max={Math.max(length, 0.1)}
        step={0.1}
        onValueChange={([to]) => {
          if (ref.current && to !== undefined) ref.current.currentTime = to
        }}
        className="relative flex h-11 min-w-0 flex-1 touch-none items-center"
      >
        <Slider.Track className="drawn relative h-0.5 w-full bg-edge">
          <Slider.Range className="absolute h-full bg-warm" />
        </Slider.Track>
        <Slider.Thumb
          aria-label="Position"
          aria-valuetext={`${at.toFixed(1)} of ${length.toFixed(1)} seconds`}
          className="drawn block h-6 w-3 rounded-sm bg-warm"
        />
      </Slider.Root>
      <span className="shrink-0 text-sm text-soft tabular-nums">
        {length > 0 && `${at.toFixed(1)} / ${length.toFixed(1)} s`}
      </span>
    </div>
  )
}

/** useSound follows a sound, once a frame while it plays. */
export function useSound(audio: RefObject<HTMLAudioElement | null>) {
  const [state, setState] = useState({ at: 0, length: 0, playing: false })
  useEffect(() => {
    const el = audio.current
    if (!el) return
    let frame = 0
    const follow = () => {
      cancelAnimationFrame(frame)
      setState({
        at: el.currentTime,
        length: Number.isFinite(el.duration) ? el.duration : 0,
        playing: !el.paused,
      })
      if (!el.paused) frame = requestAnimationFrame(follow)
    }
    const events = ['play', 'pause', 'seeked', 'ended', 'timeupdate', 'loadedmetadata', 'durationchange'] as const
    for (const e of events) el.addEventListener(e, follow)
    follow()
    return () => {
      cancelAnimationFrame(frame)
      for (const e of events) el.removeEventListener(e, follow)
    }
  }, [audio])
  return state
}
