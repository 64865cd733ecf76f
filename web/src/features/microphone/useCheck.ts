import { useEffect, useRef, useState } from 'react'
import { checkMicrophone, type MicrophoneCheck } from '../../ear/ask'
import { openMicrophone, rememberCheck, type Source } from '../../ear/microphone'

/** Moments of a check, in seconds; core/take/microphone.go listens by the same. */
const quietBefore = 2
/**
 * Seconds of playing: long enough for a gain that rides to show itself. The core counts
 * on the same three stretches (core/ear/microphone.go).
 */
const playFor = 3
/** Seconds of quiet after the note, in which a riding gain comes up again. */
const quietAfter = 2

/** Checking is where a check stands. */
export type Checking = {
  at: 'idle' | 'opening' | 'quiet' | 'play' | 'quiet-again' | 'listening' | 'told' | 'failed'
  level: number
  label: string
  left: number
  found?: MicrophoneCheck
  problem?: unknown
}

/** Before anything was asked. */
const idle: Checking = { at: 'idle', level: 0, label: '', left: 0 }

/** useCheck runs a check of the microphone and keeps its result for the device's name. */
export function useCheck(): { checking: Checking; run: () => void } {
  const [checking, setChecking] = useState<Checking>(idle)
  const open = useRef<Source>(undefined)
  const gone = useRef(false)
  useEffect(() => {
    gone.current = false
    return () => {
      gone.current = true
      open.current?.close()
    }
  }, [])
  async function run() {
    open.current?.close()
    setChecking({ ...idle, at: 'opening' })
    try {
      const source = await openMicrophone()
      if (gone.current) return source.close() // the check was put off meanwhile
      open.current = source
      const sound = await listenTo(source, (now) => setChecking({ ...now, label: source.label }))
      source.close()
      setChecking({ ...idle, at: 'listening', label: source.label })
      const found = await checkMicrophone(sound)
      if (found.good) rememberCheck(source.label)
      setChecking({ ...idle, at: 'told', label: source.label, found })
    } catch (problem) {
      setChecking({ ...idle, at: 'failed', problem })
    }
  }
  return { checking, run: () => void run() }
}

/** listenTo gathers a check's seconds and says what the player should do now. */
function listenTo(source: Source, say: (now: Checking) => void) {
  const blocks: Float32Array[] = []
  const rate = source.context.sampleRate
  const all = Math.round((quietBefore + playFor + quietAfter) * rate)
  let have = 0
  return new Promise<{ samples: Float32Array<ArrayBuffer>; rate: number }>((resolve, reject) => {
    void source.lost.then((why) => reject(new Error(why)))
    source.onBlock((_, samples) => {
      if (have >= all) return
      blocks.push(samples)
      have += samples.length
      say(moment(have / rate, samples))
      if (have >= all) resolve({ samples: joined(blocks, all), rate })
    })
  })
}

/**
 * moment says which of the three stretches a second belongs to, and how much of it is
 * left.
 */
function moment(at: number, samples: Float32Array): Checking {
  const level = samples.reduce((top, x) => Math.max(top, Math.abs(x)), 0)
  if (at < quietBefore) return { ...idle, at: 'quiet', level, left: quietBefore - at }
  if (at < quietBefore + playFor) return { ...idle, at: 'play', level, left: quietBefore + playFor - at }
  return { ...idle, at: 'quiet-again', level, left: quietBefore + playFor + quietAfter - at }
}

/**
 * joined puts the blocks together, cut or filled with quiet to the length the core
 * expects.
 */
function joined(blocks: Float32Array[], length: number): Float32Array<ArrayBuffer> {
  const out = new Float32Array(length)
  let at = 0
  for (const block of blocks) {
    out.set(block.subarray(0, Math.max(0, length - at)), at)
    at = Math.min(length, at + block.length)
  }
  return out
}
