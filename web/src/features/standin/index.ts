export { Mailbox } from './Mailbox'
