export { SchoolPage } from './SchoolPage'
