export { SectionPage } from './SectionPage'
