import { useQuery } from '@tanstack/react-query'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import { answer, api } from '../../api/client'
import { newId } from '../../api/ids'
import { Button, buttonClass } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { shifted } from '../../ui/days'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { classesQuery } from '../signin'
import type { Draft } from './draft'
import { type Item, type Plan, templatesQuery, useSaveTemplate } from './queries'
import { usualTest } from './TestTerms'

/** onAdd adds to the week: a director who has begun it loses nothing by copying. */
type Props = { classId: string; plan: Plan; draft: Draft; onAdd: (...items: Item[]) => void }

/** CopyFrom brings steps from the week before, another class or a template, and keeps the week as a template. */
export function CopyFrom({ classId, plan, draft, onAdd }: Props) {
  const templates = useQuery(templatesQuery)
  const classes = useQuery(classesQuery)
  const [naming, setNaming] = useState(false)
  const [problem, setProblem] = useState<unknown>()
  const others = classes.data?.filter((c) => c.id !== classId) ?? []
  const copy = async (from: string, monday: string) => {
    try {
      const before = await answer(
        api.GET('/classes/{class}/plans/{monday}', { params: { path: { class: from, monday } } }),
      )
      onAdd(...renewed(before.items, plan))
      setProblem(undefined)
    } catch (error) {
      setProblem(error)
    }
  }
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className={buttonClass()}>Copy from … ▾</DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="start"
            sideOffset={4}
            className="z-40 max-h-[70vh] max-w-[92vw] overflow-y-auto rounded-md border border-edge bg-sheet p-1 shadow-xl"
          >
            <Row onSelect={() => void copy(classId, shifted(plan.monday, -7))}>The week before</Row>
            {others.length > 0 && <Heading>This week of another class</Heading>}
            {others.map((c) => (
              <Row key={c.id} onSelect={() => void copy(c.id, plan.monday)}>
                {c.name}
              </Row>
            ))}
            <Heading>My templates</Heading>
            {templates.data?.templates.map((t) => (
              <Row key={t.id} onSelect={() => onAdd(...renewed(t.items, plan))}>
                {t.name}
              </Row>
            ))}
            <Row onSelect={() => setNaming(true)}>Save this week as a template …</Row>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {naming && <KeepTemplate items={draft.items} onClose={() => setNaming(false)} />}
      {problem !== undefined && <Problem error={problem} />}
    </>
  )
}

/** KeepTemplate keeps the week under a name. */
function KeepTemplate({ items, onClose }: { items: Item[]; onClose: () => void }) {
  const save = useSaveTemplate()
  const [name, setName] = useState('')
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Save this week as a template"
      says="It is yours, for all of your classes, under “Copy from …”."
    >
      <form
        className="mt-4 flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault()
          save.mutate({ name: name.trim(), items }, { onSuccess: onClose })
        }}
      >
        <Field label="Its name" maxLength={80} value={name} onChange={(e) => setName(e.target.value)} />
        <Button type="submit" look="main" disabled={!name.trim() || save.isPending}>
          Save the template
        </Button>
      </form>
      {save.error && <Problem error={save.error} />}
    </Dialog>
  )
}

const Heading = ({ children }: { children: string }) => (
  <DropdownMenu.Label className="mt-1 border-t border-rule px-3 pt-2 text-xs text-soft">{children}</DropdownMenu.Label>
)

function Row({ onSelect, children }: { onSelect: () => void; children: string }) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="flex min-h-11 cursor-pointer items-center rounded px-3 data-[highlighted]:bg-band data-[highlighted]:outline-2 data-[highlighted]:outline-warm"
    >
      {children}
    </DropdownMenu.Item>
  )
}

/**
 * renewed gives items numbers of their own: takes are counted by them. A test is due as
 * if it were new.
 */
const renewed = (items: Item[], { monday, today }: Plan) =>
  items.map((i) => ({
    ...i,
    key: newId(),
    ...(i.test ? { test: { ...i.test, due: usualTest(monday, today).due } } : {}),
  }))
