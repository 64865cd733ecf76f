export { Help } from './Help'
