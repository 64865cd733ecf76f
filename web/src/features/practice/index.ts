export { Practice } from './Practice'
