export { LessonCards } from './LessonCards'
export { LessonsPage } from './LessonsPage'
