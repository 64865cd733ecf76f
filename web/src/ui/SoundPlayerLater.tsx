import { type ComponentProps, lazy, Suspense } from 'react'
import type { SoundPlayer } from './SoundPlayer'

const Loaded = lazy(async () => ({ default: (await import('./SoundPlayer')).SoundPlayer }))

/** SoundPlayerLater is a SoundPlayer that is loaded when there is something to hear; its place is kept. */
export function SoundPlayerLater(props: ComponentProps<typeof SoundPlayer>) {
  return (
    <Suspense fallback={<div className="h-11" />}>
      <Loaded {...props} />
    </Suspense>
  )
}
