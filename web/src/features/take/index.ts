export { takeQuery } from './queries'
export { TakeView } from './TakeView'
