/** RibbonLegend teaches how to read the drawing, once. */
export function RibbonLegend() {
  return (
    <ul className="grid gap-x-8 gap-y-1 text-sm text-soft sm:grid-cols-2">
      <li>Along is time; the warm notch is the beat the note should start on.</li>
      <li>Up is sharp, down is flat; inside the pale track is within the limit.</li>
      <li>Thick is loud, thin is soft; solid ink is a clear tone, pale ink a breathy one.</li>
      <li>White is silence; a stroke in the lane above or below is a jump to that note.</li>
    </ul>
  )
}
