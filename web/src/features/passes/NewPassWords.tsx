import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'

/** NewPassWords shows a new pass's words, this once, and copies its link. */
export function NewPassWords({ made }: { made: Schemas['ClassPasses'] }) {
  const [copied, setCopied] = useState(false)
  return (
    <div role="status" className="mt-4 border-l-4 border-nearly pl-3">
      <p>
        The pass of {made.for} is <strong className="font-serif text-lg">{made.code}</strong>. It is shown this once:
        write it down, or send the link.
      </p>
      <p className="mt-2 flex flex-wrap items-center gap-3">
        <code className="break-all text-sm">{made.link}</code>
        {/* Without a secure page a browser has no clipboard; the link stands there to be marked. */}
        {navigator.clipboard && (
          <Button onClick={() => void navigator.clipboard.writeText(made.link ?? '').then(() => setCopied(true))}>
            {copied ? 'Copied' : 'Copy the link'}
          </Button>
        )}
      </p>
    </div>
  )
}
