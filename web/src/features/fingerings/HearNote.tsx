import { useEffect, useRef } from 'react'
import { oneNote, type Request } from '../../ear/ask'
import { encodeWAV } from '../../ear/wav'
import { Button } from '../../ui/Button'

/** Samples a second: enough for a reference tone, and quickly made. */
const rate = 24_000

/** HearNote sounds one note of an instrument; the core on this device makes it. */
export function HearNote({ of, midi, name }: { of: Request<'chart'>; midi: number; name: string }) {
  const sound = useRef<HTMLAudioElement>(undefined)
  const quiet = () => {
    sound.current?.pause()
    if (sound.current) URL.revokeObjectURL(sound.current.src)
    sound.current = undefined
  }
  useEffect(() => quiet)
  async function hear() {
    quiet()
    const made = await oneNote(of, midi, rate)
    const player = new Audio(URL.createObjectURL(encodeWAV([made.samples], rate)))
    sound.current = player
    player.onended = quiet
    await player.play()
  }
  return (
    <Button onClick={() => void hear().catch(console.warn)}>
      Hear it<span className="sr-only">: {name}</span>
    </Button>
  )
}
