export { PrivacyPage } from './PrivacyPage'
