import { Tabs } from 'radix-ui'
import { lazy, Suspense } from 'react'
import { Link } from 'react-router'
import { DirectorSignIn } from './DirectorSignIn'
import { PlayerSignIn } from './PlayerSignIn'
import { useIsNeeded } from './queries'
import { SignOn } from './SignOn'

// A school is begun once.
const BeginSchool = lazy(async () => ({ default: (await import('./BeginSchool')).BeginSchool }))

/** The look of a tab: a line under the one that is open, as on paper. */
const tab =
  'min-h-11 border-b-2 border-transparent px-1 text-soft data-[state=active]:border-warm data-[state=active]:text-ink'

/** SignIn lets players in by class code and directors by email. */
export function SignIn() {
  // Where there is no school, nobody can sign in: it is set up first.
  if (useIsNeeded())
    return (
      <Suspense>
        <BeginSchool />
      </Suspense>
    )
  return (
    <div className="mx-auto max-w-md pt-8 sm:pt-16">
      <h1 className="text-2xl">{greeting(new Date().getHours())}, band.</h1>
      <p className="mt-2 text-soft">Long, warm notes first. Your own page is one step away.</p>
      <SignOn />
      <Tabs.Root defaultValue="player" className="mt-8">
        <Tabs.List aria-label="Who are you?" className="flex gap-6 border-b border-rule">
          <Tabs.Trigger value="player" className={tab}>
            I play
          </Tabs.Trigger>
          <Tabs.Trigger value="director" className={tab}>
            I direct
          </Tabs.Trigger>
        </Tabs.List>
        <Tabs.Content value="player" className="pt-6">
          <PlayerSignIn />
        </Tabs.Content>
        <Tabs.Content value="director" className="pt-6">
          <DirectorSignIn />
        </Tabs.Content>
      </Tabs.Root>
      <p className="mt-10 text-sm text-soft">
        You help in a class, or belong to a player’s family?{' '}
        <Link to="/pass" className="underline">
          Come in with your pass
        </Link>
      </p>
    </div>
  )
}

/** greeting is by the clock of whoever reads it. */
const greeting = (hour: number) => (hour < 12 ? 'Good morning' : hour < 18 ? 'Good afternoon' : 'Good evening')
