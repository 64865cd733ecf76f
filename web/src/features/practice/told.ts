import { later } from '../../ui/later'

const outcome = () => import('./Outcome')

/** Outcome is what is told of a take; it is there when one has been played. */
export const Outcome = later(async () => (await outcome()).Outcome)
/** Passed is what is told of a take that is not kept. */
export const Passed = later(async () => (await outcome()).Passed)
