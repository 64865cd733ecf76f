export { Today } from './Today'
