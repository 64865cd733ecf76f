export { classesQuery, meQuery } from './queries'
export { SignIn } from './SignIn'
export { SignOut } from './SignOut'
export { WhereSignedIn } from './WhereSignedIn'
