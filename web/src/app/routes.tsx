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
    // The first page of all comes in a moment; a sign that says so would only flicker.
    hydrateFallbackElement: <></>,
    children: [
      { index: true, element: <Home /> },
      { path: 'sign-in', handle: { title: 'Sign in' }, element: <SignIn /> },
      { path: 'practice', handle: { title: 'Practice' }, element: <Practice /> },
      {
        path: 'fingerings',
        handle: { title: 'Fingerings' },
        lazy: async () => ({ Component: (await import('../features/fingerings')).OwnFingerings }),
      },
      {
        path: 'lessons',
        handle: { title: 'Lessons' },
        lazy: async () => ({ Component: (await import('../features/lessons')).LessonsPage }),
      },
      {
        path: 'which-note',
        handle: { title: 'Which note is that?' },
        lazy: async () => ({ Component: (await import('../features/freeplay')).FreePlayPage }),
      },
      {
        path: 'class/:classId/fingerings/:instrument/:variant?',
        handle: { title: 'Fingerings' },
        lazy: async () => ({ Component: (await import('../features/fingerings')).ClassFingerings }),
      },
      {
        path: 'school/:school',
        handle: { title: 'The school' },
        lazy: async () => ({ Component: (await import('../features/school')).SchoolPage }),
      },
      {
        path: 'new-password',
        handle: { title: 'A new password' },
        lazy: async () => ({ Component: (await import('../features/signin/ChoosePassword')).ChoosePassword }),
      },
      {
        path: 'stand-in/mail',
        handle: { title: 'The demo’s mailbox' },
        lazy: async () => ({ Component: (await import('../features/standin')).Mailbox }),
      },
      {
        path: 'which-class',
        handle: { title: 'Which class' },
        lazy: async () => ({ Component: (await import('../features/signin/WhichClass')).WhichClass }),
      },
      {
        path: 'my-progress',
        handle: { title: 'My progress' },
        lazy: async () => ({ Component: (await import('../features/player')).MyProgress }),
      },
      {
        path: 'privacy',
        handle: { title: 'What is kept of a child' },
        lazy: async () => ({ Component: (await import('../features/privacy')).PrivacyPage }),
      },
      {
        path: 'pass',
        handle: { title: 'Come in with your pass' },
        lazy: async () => ({ Component: (await import('../features/passes')).PassSignIn }),
      },
      {
        path: 'child/:player',
        handle: { title: 'How it goes' },
        lazy: async () => ({ Component: (await import('../features/passes')).FamilyPage }),
      },
      {
        path: 'class/:classId/try/:instrument',
        handle: { title: 'Try a player’s page' },
        lazy: async () => ({ Component: (await import('../features/practice/TryPage')).TryPage }),
      },
      {
        path: 'class/:classId',
        handle: { title: 'Today' },
        lazy: async () => ({ Component: (await import('../features/today')).Today }),
      },
      {
        path: 'class/:classId/listen',
        handle: { title: 'Listen' },
        lazy: async () => ({ Component: (await import('../features/listen')).ListenPage }),
      },
      {
        path: 'class/:classId/section/:section',
        handle: { title: 'A section' },
        lazy: async () => ({ Component: (await import('../features/section')).SectionPage }),
      },
      {
        path: 'class/:classId/player/:playerId',
        handle: { title: 'A player' },
        lazy: async () => ({ Component: (await import('../features/player')).PlayerPage }),
      },
      {
        path: 'class/:classId/test/:stepId',
        handle: { title: 'A test' },
        lazy: async () => ({ Component: (await import('../features/tests')).TestPage }),
      },
      {
        path: 'class/:classId/plan/:monday?',
        handle: { title: 'Plan' },
        lazy: async () => ({ Component: (await import('../features/plan')).PlanPage }),
      },
      {
        path: 'class/:classId/set-up',
        handle: { title: 'Class' },
        lazy: async () => ({ Component: (await import('../features/class/ClassPage')).ClassPage }),
      },
      {
        path: 'class/:classId/front/:monday/:day',
        handle: { title: 'Play with the class' },
        lazy: async () => ({ Component: (await import('../features/front')).FrontPage }),
      },
      {
        path: 'take/:takeId',
        handle: { title: 'A take' },
        lazy: async () => ({ Component: (await import('../features/take')).TakeView }),
      },
      ...gallery,
      { path: '*', handle: { title: 'No page here' }, element: <NotFound /> },
    ],
  },
])
