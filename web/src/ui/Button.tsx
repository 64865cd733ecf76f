import type { ComponentProps } from 'react'

/** How much a button wants to be pressed: one strong button to a page. */
const looks = {
  main: 'bg-warm text-on-warm border-warm hover:brightness-110 font-semibold',
  plain: 'bg-sheet text-ink border-edge hover:border-ink',
  quiet: 'border-transparent text-ink underline decoration-edge underline-offset-4 hover:decoration-warm px-1',
}
/** 44 pixels high, and 56 for what is pressed with an instrument in the other hand (WCAG 2.5.8 asks for 24, 2.5.5 for 44). */
const sizes = { normal: 'min-h-11 min-w-11 px-4 text-sm', large: 'min-h-14 px-7 text-lg font-serif' }

/** A button of the browser, with a look. */
type Props = ComponentProps<'button'> & { look?: keyof typeof looks; size?: keyof typeof sizes }

/** buttonClass dresses other elements, such as links, as buttons. */
export function buttonClass(look: keyof typeof looks = 'plain', size: keyof typeof sizes = 'normal') {
  return `inline-flex items-center justify-center gap-2 rounded-md border disabled:opacity-50 ${sizes[size]} ${looks[look]}`
}

/**
 * Button is of type "button" unless it is told otherwise: inside a form the browser's
 * own choice would send it.
 */
export function Button({ look = 'plain', size = 'normal', className = '', type = 'button', ...rest }: Props) {
  return <button type={type} className={`${buttonClass(look, size)} ${className}`} {...rest} />
}
