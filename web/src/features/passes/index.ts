export { FamilyPage } from './FamilyPage'
export { Passes } from './Passes'
export { PassSignIn } from './PassSignIn'
