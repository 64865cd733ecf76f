export { ClassHead } from './ClassHead'
export { ClassPage } from './ClassPage'
