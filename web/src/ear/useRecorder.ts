import { useEffect, useRef, useState } from 'react'
import { openMicrophone, type Source } from './microphone'
import { encodeWAV } from './wav'

/**
 * useRecorder records from the microphone at once, for so many seconds at most; what was
 * recorded by then is not lost. finish closes the microphone and returns the recording.
 */
export function useRecorder(longest: number) {
  const [seconds, setSeconds] = useState(0)
  const [problem, setProblem] = useState<unknown>()
  const open = useRef<Source>(undefined)
  const blocks = useRef<Float32Array[]>([])
  useEffect(() => {
    // The microphone may open after this has been closed; it must not stay open then.
    let left = false
    openMicrophone()
      .then((source) => {
        if (left) return source.close()
        open.current = source
        source.onBlock((_, samples) => {
          if (blocks.current.length * samples.length >= longest * source.context.sampleRate) return
          blocks.current.push(samples)
          setSeconds((blocks.current.length * samples.length) / source.context.sampleRate)
        })
      })
      .catch(setProblem)
    return () => {
      left = true
      open.current?.close()
    }
  }, [longest])
  const finish = (): Blob | undefined => {
    const source = open.current
    if (!source) return undefined
    source.close()
    return encodeWAV(blocks.current, source.context.sampleRate)
  }
  return { seconds, problem, setProblem, finish }
}
