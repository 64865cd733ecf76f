import { useEffect, useRef, useState } from 'react'
import type { Chart } from '../../ear/ask'
import { Button } from '../../ui/Button'
import { Select } from '../../ui/Select'

/** Share of full scale: a drone is in young ears for minutes. */
const loudness = 0.1
/** Seconds: shorter fades click. */
const fade = 0.1

/** Drone holds a low note, to tune one's own against. */
export function Drone({ drones }: { drones: Chart['drones'] }) {
  const [name, setName] = useState(drones[0]?.called ?? '')
  const [on, setOn] = useState(false)
  useTone(on ? (drones.find((d) => d.called === name)?.hz ?? 0) : 0)
  return (
    <section aria-label="A drone" className="mt-6 border-t border-rule pt-3">
      <h2>A drone to play with</h2>
      <p className="text-sm text-soft">One low note that goes on. Put headphones on, not loud.</p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Select
          label="The drone’s note"
          value={name}
          onChange={setName}
          options={drones.map((d) => ({ value: d.called, label: d.called }))}
        />
        <Button onClick={() => setOn(!on)}>{on ? 'Stop the drone' : 'Sound the drone'}</Button>
      </div>
    </section>
  )
}

/** useTone sounds a tone of so many hertz until it is another; 0 is quiet. */
function useTone(hertz: number) {
  const context = useRef<AudioContext>(undefined)
  useEffect(() => {
    if (hertz === 0) return
    context.current ??= new AudioContext()
    const now = context.current
    void now.resume()
    const tone = now.createOscillator()
    const shape = now.createGain()
    tone.type = 'triangle'
    tone.frequency.value = hertz
    shape.gain.setValueAtTime(0, now.currentTime)
    shape.gain.linearRampToValueAtTime(loudness, now.currentTime + fade)
    tone.connect(shape).connect(now.destination)
    tone.start()
    return () => {
      shape.gain.cancelScheduledValues(now.currentTime)
      shape.gain.setTargetAtTime(0, now.currentTime, fade / 3)
      tone.stop(now.currentTime + fade)
    }
  }, [hertz])
  useEffect(() => () => void context.current?.close(), [])
}
