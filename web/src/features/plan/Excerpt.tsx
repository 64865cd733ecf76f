import { useMutation } from '@tanstack/react-query'
import { Failure } from '../../api/client'
import { Problem } from '../../ui/Problem'
import type { Item } from './queries'

/** Read is what the server read out of a file. */
type Read = {
  title: string
  tempo_bpm: number
  melody: { degree: number; beats: number; rest?: boolean }[]
  notices: string[]
}

/** onChange gets the item with the line of music that was read. */
type Props = { classId: string; item: Item; onChange: (item: Item) => void }

/** Excerpt brings a line of music in from MusicXML. */
export function Excerpt({ classId, item, onChange }: Props) {
  const bring = useMutation({
    mutationFn: async (file: File): Promise<Read> => {
      const response = await fetch(`/api/classes/${classId}/excerpt`, { method: 'POST', body: file })
      const said = await response.json()
      if (!response.ok) throw new Failure(response.status, said)
      return said
    },
    onSuccess: (x) =>
      onChange({
        ...item,
        parameters: {
          ...item.parameters,
          melody: x.melody,
          ...(x.title ? { title: x.title } : {}),
          ...(x.tempo_bpm ? { tempo_bpm: Math.round(x.tempo_bpm) } : {}),
        },
      }),
  })
  const notes = (item.parameters.melody as { rest?: boolean }[]).filter((n) => !n.rest).length
  return (
    <div className="text-sm">
      <p>{notes} notes in the line.</p>
      <label className="mt-1 block text-soft">
        Bring a line in from MusicXML: one part, one voice
        <input
          type="file"
          accept=".musicxml,.mxl,.xml"
          className="mt-1 block max-w-full text-ink"
          onChange={(e) => {
            const file = e.target.files?.[0]
            if (file) bring.mutate(file)
          }}
        />
      </label>
      {bring.error && <Problem error={bring.error} />}
      {bring.data?.notices.map((n) => (
        <p key={n} className="text-soft">
          {n}
        </p>
      ))}
    </div>
  )
}
