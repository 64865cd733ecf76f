const width = 320
const height = 72
const most = 50 // cents either way in view
const band = 10 // cents that are called in tune

/** Needle shows how far off a note is, as ink on the band that is in tune: flat to the left, sharp to the right. */
export function Needle({ cents, tune, sounding }: { cents: number; tune: string; sounding: boolean }) {
  const x = (c: number) => width / 2 + (Math.max(-most, Math.min(most, c)) / most) * (width / 2 - 12)
  return (
    <svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={tune} className="w-full max-w-sm">
      <rect x={x(-band)} y="8" width={x(band) - x(-band)} height="40" fill="var(--band)" stroke="var(--edge)" />
      <line x1="8" x2={width - 8} y1="28" y2="28" stroke="var(--edge)" />
      <line x1={width / 2} x2={width / 2} y1="4" y2="52" stroke="currentColor" />
      <ellipse cx={x(cents)} cy="28" rx="9" ry="13" fill="var(--warm)" opacity={sounding ? 1 : 0.4} />
      <text x="8" y="68" className="fill-soft text-[14px]">
        flat
      </text>
      <text x={width - 8} y="68" textAnchor="end" className="fill-soft text-[14px]">
        sharp
      </text>
    </svg>
  )
}
