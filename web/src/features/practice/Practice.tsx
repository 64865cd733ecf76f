import { useQuery } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { askForSync } from '../../device/background'
import { Outbox } from '../../device/outbox'
import { askToStay } from '../../device/space'
import { OutboxContext } from '../../device/useOutbox'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { meQuery } from '../signin'
import { Care } from './Care'
import { DaySteps } from './DaySteps'
import { FromDirector } from './FromDirector'
import { Keeping } from './Keeping'
import { TodaysTakes } from './TodaysTakes'
import { useToday } from './useToday'

/** Practice is the player's page, with what this device keeps for them behind it. */
export function Practice() {
  const { data: me, error } = useQuery(meQuery)
  const owner = me?.role === 'player' ? (me.id ?? '') : ''
  // One outbox to a player: on a shared machine nobody sends what a classmate recorded.
  const outbox = useMemo(() => new Outbox(owner, () => void askForSync().catch(console.warn)), [owner])
  useEffect(() => {
    if (!owner) return
    // Asked before the first take is kept, not when the browser is about to throw it out.
    askToStay()
    void outbox.open().catch(console.warn) // without a place to keep takes they are sent at once
    window.addEventListener('online', outbox.send)
    return () => {
      window.removeEventListener('online', outbox.send)
      outbox.close()
    }
  }, [outbox, owner])
  if (error) return <Problem error={error} />
  if (!me) return <Waiting what="Opening your music" />
  return (
    <OutboxContext value={outbox}>
      <Steps />
    </OutboxContext>
  )
}

/** Steps is the player's own day: the server's, and what is still on this device. */
function Steps() {
  const { practice, steps, error } = useToday()
  if (error) return <Problem error={error} />
  if (!practice) return <Waiting what="Opening your music" />
  return (
    <DaySteps practice={practice} steps={steps}>
      {(step) => (
        <>
          <Keeping />
          {step && <TodaysTakes takes={step.takes} />}
          {/* What an older version of the page kept has no care in it. */}
          <Care care={practice.care ?? []} />
          <FromDirector comments={practice.comments} answers={practice.answers ?? []} />
        </>
      )}
    </DaySteps>
  )
}
