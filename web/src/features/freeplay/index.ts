export { FreePlayPage } from './FreePlayPage'
