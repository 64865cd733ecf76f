export { PlayerPage } from './PlayerPage'
