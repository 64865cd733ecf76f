import { useQuery } from '@tanstack/react-query'
import { DropdownMenu } from 'radix-ui'
import { useEffect } from 'react'
import { useNavigate } from 'react-router'
import { classesQuery, useRights } from '../signin'
import { rememberClass } from './lastClass'

/** path is the page of the class one is on: the other class opens at the same. */
type Props = { classId: string; name: string; path: string }

/** ClassName is the class's name, and the way to one's other classes where there are any. */
export function ClassName({ classId, name, path }: Props) {
  const { directs } = useRights()
  const { data } = useQuery({ ...classesQuery, enabled: directs })
  const navigate = useNavigate()
  useEffect(() => rememberClass(classId), [classId])
  const open = data?.filter((c) => !c.archived) ?? []
  if (open.length < 2) return <h1 className="text-2xl">{name}</h1>
  return (
    <h1 className="text-2xl">
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          aria-label={`${name}: another class`}
          className="min-h-10 underline decoration-edge decoration-dotted underline-offset-8 hover:decoration-warm"
        >
          {name} <span aria-hidden>▾</span>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="start"
            className="z-30 max-h-96 min-w-64 overflow-y-auto rounded-md border border-edge bg-sheet p-1 shadow-lg"
          >
            {open.map((c) => (
              <DropdownMenu.Item
                key={c.id}
                onSelect={() => navigate(`/class/${c.id}${path}`)}
                className="flex min-h-11 cursor-pointer items-center rounded px-3 outline-none data-[highlighted]:bg-warm-wash"
              >
                {c.name}
                {c.id === classId && <span className="ml-2 text-sm text-soft">this one</span>}
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </h1>
  )
}
