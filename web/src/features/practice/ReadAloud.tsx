import { useEffect, useState } from 'react'
import { Button } from '../../ui/Button'

/** ReadAloud reads a text with a voice that is on the device; where there is none it is not offered. */
export function ReadAloud({ texts }: { texts: string[] }) {
  const voice = useOwnVoice()
  const [reading, setReading] = useState(false)
  useEffect(() => () => window.speechSynthesis?.cancel(), [])
  if (!voice) return null
  function toggle() {
    window.speechSynthesis.cancel()
    if (reading) return setReading(false)
    const said = new SpeechSynthesisUtterance(texts.filter(Boolean).map(sayable).join('. '))
    said.voice = voice ?? null
    said.rate = 0.95
    said.onend = said.onerror = () => setReading(false)
    setReading(true)
    window.speechSynthesis.speak(said)
  }
  return (
    <Button look="quiet" className="mt-3" onClick={toggle}>
      {reading ? 'Stop reading' : 'Read it to me'}
    </Button>
  )
}

/** sayable spells the signs a voice stumbles over. */
function sayable(text: string): string {
  return text.replaceAll('♭', ' flat ').replaceAll('♯', ' sharp ').replaceAll('→', ' to ').replaceAll('·', ',')
}

/** useOwnVoice picks a voice that speaks without a network: nothing a child reads leaves the device. */
function useOwnVoice(): SpeechSynthesisVoice | undefined {
  const [voice, setVoice] = useState<SpeechSynthesisVoice>()
  useEffect(() => {
    const voices = window.speechSynthesis
    if (!voices) return
    const pick = () => {
      const own = voices.getVoices().filter((v) => v.localService)
      setVoice(own.find((v) => v.lang.startsWith(document.documentElement.lang)) ?? own[0])
    }
    pick()
    voices.addEventListener('voiceschanged', pick)
    return () => voices.removeEventListener('voiceschanged', pick)
  }, [])
  return voice
}
