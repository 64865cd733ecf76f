export { Gallery } from './Gallery'
