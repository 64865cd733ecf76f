import { useEffect, useRef, useState } from 'react'
import { Button } from '../../ui/Button'

/** Speeds as parts of how it was played. The browser stretches the time and keeps the pitch. */
const speeds = [
  { speed: 1, says: 'as played' },
  { speed: 0.75, says: 'slower' },
  { speed: 0.5, says: 'very slow' },
]

/** Model is the director's own playing of the step, as fast as it was played or slower at the same pitch. */
export function Model({ id }: { id: string }) {
  const sound = useRef<HTMLAudioElement>(null)
  const [speed, setSpeed] = useState(1)
  const [playing, setPlaying] = useState(false)
  useEffect(() => {
    if (!sound.current) return
    sound.current.preservesPitch = true
    sound.current.playbackRate = speed
  }, [speed])
  const press = () => {
    const el = sound.current
    if (!el) return
    if (!el.paused) return el.pause()
    el.currentTime = 0
    el.playbackRate = speed
    el.play().catch(() => setPlaying(false)) // no network: the program's own tone is there
  }
  return (
    <fieldset className="flex min-w-0 flex-wrap items-center gap-2">
      <legend className="sr-only">Your director’s own playing</legend>
      {/* biome-ignore lint/a11y/useMediaCaption: a long tone has no words */}
      <audio
        ref={sound}
        src={`/api/practice/models/${id}/sound.wav`}
        preload="none"
        onPlay={() => setPlaying(true)}
        onPause={() => setPlaying(false)}
        onEnded={() => setPlaying(false)}
      />
      <Button onClick={press}>{playing ? 'Stop the sound' : 'Hear your director play it'}</Button>
      {speeds.map((s) => (
        <label
          key={s.speed}
          className="flex min-h-11 min-w-11 cursor-pointer items-center rounded-md border border-edge px-2 text-sm has-checked:border-ink has-checked:bg-ink has-checked:text-paper has-focus-visible:outline-3 has-focus-visible:outline-warm"
        >
          <input
            type="radio"
            name={`speed-${id}`}
            className="sr-only"
            checked={speed === s.speed}
            onChange={() => setSpeed(s.speed)}
          />
          {s.says}
        </label>
      ))}
    </fieldset>
  )
}
