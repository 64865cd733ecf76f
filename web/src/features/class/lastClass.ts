/** Where the class that was opened last is remembered: on the device, and until sign-out. */
const kept = 'last-class'

/** lastClass is the class that was opened last on this device. */
export const lastClass = () => localStorage.getItem(kept)

/** rememberClass opens this class first the next time. */
export const rememberClass = (id: string) => localStorage.setItem(kept, id)

/** forgetClass is for sign-out: the next one at this device has other classes. */
export const forgetClass = () => localStorage.removeItem(kept)
