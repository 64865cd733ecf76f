export { ListenPage } from './ListenPage'
