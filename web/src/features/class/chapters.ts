/**
 * The chapters of the set-up. The key stands in the address, so that a chapter can be
 * linked to and reloaded.
 */
export const chapters = [
  { key: 'players', label: 'Players' },
  { key: 'people', label: 'Who comes in' },
  { key: 'consent', label: 'Consent' },
  { key: 'conventions', label: 'Teaching choices' },
  { key: 'tips', label: 'Tips' },
  { key: 'next-steps', label: 'Next steps' },
  { key: 'care', label: 'Care' },
  { key: 'excused', label: 'Excused' },
  { key: 'years', label: 'Classes and years' },
] as const
