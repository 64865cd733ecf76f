import { useQuery } from '@tanstack/react-query'
import { Link, useParams } from 'react-router'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { setUpQuery } from '../class/queries'
import { practiceQuery } from '../practice/queries'
import { FingeringBook } from './FingeringBook'

/** OwnFingerings is a player's own instrument, note by note; it needs no network once the page was open. */
export function OwnFingerings() {
  const { data, error } = useQuery(practiceQuery)
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Opening your fingerings" />
  const { instrument, variant, conventions, known, new: fresh } = data.setting
  return (
    <>
      <p className="flex flex-wrap gap-x-4 print:hidden">
        <Link to="/practice" className="underline">
          Back to your practice
        </Link>{' '}
        <Link to="/which-note" className="underline">
          Which note is that?
        </Link>
      </p>
      <FingeringBook
        request={{ instrument, variant: variant ?? '', conventions }}
        known={known ?? []}
        fresh={fresh ?? []}
      />
    </>
  )
}

/** ClassFingerings is any instrument as a class fingers it. */
export function ClassFingerings() {
  const { classId = '', instrument = '', variant = '' } = useParams()
  const { data, error } = useQuery(setUpQuery(classId))
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Opening the fingerings" />
  return (
    <>
      <p className="print:hidden">
        <Link to={`/class/${classId}/plan`}>Back to the plan</Link>
      </p>
      <FingeringBook request={{ instrument, variant, conventions: data.conventions }} />
    </>
  )
}
