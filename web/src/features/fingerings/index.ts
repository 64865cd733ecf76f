export { ClassFingerings, OwnFingerings } from './FingeringPage'
