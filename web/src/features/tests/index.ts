export { TestLines } from './TestLines'
export { TestPage } from './TestPage'
