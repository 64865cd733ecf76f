import { createBrowserRouter } from 'react-router'
import { Practice } from '../features/practice'
import { SignIn } from '../features/signin'
import { Home } from './Home'
import { NotFound } from './NotFound'
import { Shell } from './Shell'

// What a player needs comes first; a director's pages come when they are opened.
const gallery = import.meta.env.DEV
  ? [{ path: 'gallery', lazy: async () => ({ Component: (await import('../features/gallery')).Gallery }) }]
  : []

/**
 * The table of contents of the page. What a player needs is in the first load; a
 * director's pages come when they are opened.
 */
export const router = createBrowserRouter([
  {
    element: <Shell />,
    children: [
      { index: true, element: <Home /> },
      { path: 'sign-in', element: <SignIn /> },
      { path: 'practice', element: <Practice /> },
      {
        path: 'fingerings',
        lazy: async () => ({ Component: (await import('../features/fingerings')).OwnFingerings }),
      },
      {
        path: 'class/:classId/fingerings/:instrument/:variant?',
        lazy: async () => ({ Component: (await import('../features/fingerings')).ClassFingerings }),
      },
      {
        path: 'school/:school',
        lazy: async () => ({ Component: (await import('../features/school')).SchoolPage }),
      },
      { path: 'new-password', lazy: async () => ({ Component: (await import('../features/signin')).ChoosePassword }) },
      { path: 'stand-in/mail', lazy: async () => ({ Component: (await import('../features/standin')).Mailbox }) },
      { path: 'which-class', lazy: async () => ({ Component: (await import('../features/signin')).WhichClass }) },
      { path: 'privacy', lazy: async () => ({ Component: (await import('../features/privacy')).PrivacyPage }) },
      { path: 'pass', lazy: async () => ({ Component: (await import('../features/passes')).PassSignIn }) },
      { path: 'child/:player', lazy: async () => ({ Component: (await import('../features/passes')).FamilyPage }) },
      {
        path: 'class/:classId/try/:instrument',
        lazy: async () => ({ Component: (await import('../features/practice/TryPage')).TryPage }),
      },
      { path: 'class/:classId', lazy: async () => ({ Component: (await import('../features/today')).Today }) },
      {
        path: 'class/:classId/listen',
        lazy: async () => ({ Component: (await import('../features/listen')).ListenPage }),
      },
      {
        path: 'class/:classId/section/:section',
        lazy: async () => ({ Component: (await import('../features/section')).SectionPage }),
      },
      {
        path: 'class/:classId/player/:playerId',
        lazy: async () => ({ Component: (await import('../features/player')).PlayerPage }),
      },
      {
        path: 'class/:classId/plan/:monday?',
        lazy: async () => ({ Component: (await import('../features/plan')).PlanPage }),
      },
      {
        path: 'class/:classId/set-up',
        lazy: async () => ({ Component: (await import('../features/class/ClassPage')).ClassPage }),
      },
      {
        path: 'class/:classId/front/:monday/:day',
        lazy: async () => ({ Component: (await import('../features/front')).FrontPage }),
      },
      { path: 'take/:takeId', lazy: async () => ({ Component: (await import('../features/take')).TakeView }) },
      ...gallery,
      { path: '*', element: <NotFound /> },
    ],
  },
])
