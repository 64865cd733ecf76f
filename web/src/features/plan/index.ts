export { PlanPage } from './PlanPage'
