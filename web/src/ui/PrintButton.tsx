import { Button } from './Button'

/** PrintButton prints the page as it stands, without what is only for the screen. */
export function PrintButton() {
  return (
    <Button className="no-print" onClick={() => window.print()}>
      Print this page
    </Button>
  )
}
