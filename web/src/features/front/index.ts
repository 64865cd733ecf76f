export { FrontPage } from './FrontPage'
