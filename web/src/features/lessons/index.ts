export { LessonsPage } from './LessonsPage'
