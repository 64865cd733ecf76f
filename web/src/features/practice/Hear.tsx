import { useEffect, useRef, useState } from 'react'
import { reference } from '../../ear/ask'
import { encodeWAV } from '../../ear/wav'
import { Button } from '../../ui/Button'
import type { ShownStep } from './overlay'

/** Samples a second: enough for a reference tone, and quickly made. */
const rate = 24_000

/** Hear sounds a step as it should be; the core on this device makes the sound, so that it needs no network. */
export function Hear({ step }: { step: ShownStep }) {
  const [state, setState] = useState<'quiet' | 'making' | 'sounding'>('quiet')
  const sound = useRef<HTMLAudioElement>(undefined)
  const stop = () => {
    sound.current?.pause()
    if (sound.current) URL.revokeObjectURL(sound.current.src)
    sound.current = undefined
    setState('quiet')
  }
  // Another step sounds otherwise.
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  useEffect(
    () => () => {
      sound.current?.pause()
      if (sound.current) URL.revokeObjectURL(sound.current.src)
    },
    [step.score],
  )
  async function start() {
    setState('making')
    try {
      const made = await reference(step.score, rate)
      const player = new Audio(URL.createObjectURL(encodeWAV([made.samples], rate)))
      sound.current = player
      player.onended = stop
      setState('sounding')
      await player.play()
    } catch (error) {
      console.warn(error)
      stop()
    }
  }
  return (
    <Button data-key="h" disabled={state === 'making'} onClick={state === 'sounding' ? stop : () => void start()}>
      {state === 'sounding' ? 'Stop the sound' : state === 'making' ? 'Making the sound …' : 'Hear how it sounds'}
    </Button>
  )
}
