import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { buttonClass } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { beginningQuery } from './queries'

/** What went wrong at a school's accounts, and what to do. */
const problems: Record<string, string> = {
  late: 'That took too long, or was begun in another window. Please sign in again.',
  refused: 'The school’s accounts did not let you in. Please try again, or use your card.',
  domain: 'This is not an account of the school. Sign out there, and choose your school account.',
  unknown: 'The school knows you, but no class here has you on its list. Ask your director.',
  provider: 'The school’s accounts do not answer just now. Use your card or your password.',
}

/** SignOn leads to the accounts that a school's people have already. */
export function SignOn() {
  const { data } = useQuery(beginningQuery)
  const [search] = useSearchParams()
  const [picked, setPicked] = useState('')
  const problem = problems[search.get('problem') ?? '']
  const schools = data?.sign_on ?? []
  const school = picked || schools[0]?.id
  return (
    <>
      {problem && (
        <p role="alert" className="mt-4 border-l-4 border-not-yet pl-3">
          {problem}
        </p>
      )}
      {schools.length > 0 && (
        <div className="mt-6 flex flex-wrap items-end gap-3">
          {schools.length > 1 && (
            <Choice
              label="School"
              value={school ?? ''}
              options={schools.map((s) => ({ key: s.id, label: s.name }))}
              onChange={setPicked}
            />
          )}
          {/* A link and not a call: the school's own page opens. */}
          <a className={buttonClass()} href={`/api/sign-on/${school}`}>
            Sign in with your school account
          </a>
        </div>
      )}
    </>
  )
}
