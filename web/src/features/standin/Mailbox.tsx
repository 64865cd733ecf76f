import { useQuery } from '@tanstack/react-query'
import { answer, api } from '../../api/client'
import { moment } from '../../ui/moment'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'

/** Mailbox stands in for a mail server: it shows what would have been sent. A link in a letter can be followed. */
export function Mailbox() {
  const { data, error } = useQuery({
    queryKey: ['mailbox'],
    queryFn: () => answer(api.GET('/stand-in/mail')),
    refetchInterval: 3_000,
  })
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Opening the mailbox" />
  return (
    <div className="mx-auto max-w-2xl">
      <h1 className="text-2xl">The demo’s mailbox</h1>
      <p className="text-soft">A stand-in: no letter leaves this machine. A real school names its mail server.</p>
      {data.letters.length === 0 && <p className="mt-6">Nothing has come yet.</p>}
      <ul className="mt-4 space-y-4">
        {data.letters.map((l) => (
          <li key={l.id} className="rounded-md border border-rule bg-sheet p-4">
            <h2 className="text-lg">{l.subject}</h2>
            <p className="text-sm text-soft">
              to {l.to}, {moment(l.at)}
            </p>
            <p className="mt-2 whitespace-pre-wrap">
              {l.body.split(/(https?:\/\/\S+)/).map((part) =>
                part.startsWith('http') ? (
                  <a key={part} href={part} className="break-all underline">
                    {part}
                  </a>
                ) : (
                  part
                ),
              )}
            </p>
          </li>
        ))}
      </ul>
    </div>
  )
}
