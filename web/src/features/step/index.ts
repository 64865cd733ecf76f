export { ChangeStep } from './ChangeStep'
