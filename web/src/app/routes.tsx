import { createBrowserRouter } from 'react-router'
import { Practice } from '../features/practice'
import { SignIn } from '../features/signin'
import { TakeView } from '../features/take'
import { Today } from '../features/today'
import { Home } from './Home'
import { NotFound } from './NotFound'
import { Shell } from './Shell'

const gallery = import.meta.env.DEV
  ? [{ path: 'gallery', lazy: async () => ({ Component: (await import('../features/gallery')).Gallery }) }]
  : []

export const router = createBrowserRouter([
  {
    element: <Shell />,
    children: [
      { index: true, element: <Home /> },
      { path: 'sign-in', element: <SignIn /> },
      { path: 'class/:classId', element: <Today /> },
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
      { path: 'take/:takeId', element: <TakeView /> },
      { path: 'practice', element: <Practice /> },
      ...gallery,
      { path: '*', element: <NotFound /> },
    ],
  },
])
