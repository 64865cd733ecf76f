export { Search } from './Search'
