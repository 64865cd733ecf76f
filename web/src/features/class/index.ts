export { ClassHead } from './ClassHead'
