export { classesQuery, meQuery, useSignOut } from './queries'
export { SignIn } from './SignIn'
