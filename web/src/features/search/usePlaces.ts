import { useQuery } from '@tanstack/react-query'
import { useMatch } from 'react-router'
import { chapters } from '../class/chapters'
import { lastClass } from '../class/lastClass'
import { setUpQuery } from '../class/queries'
import { catalogueQuery } from '../plan/queries'
import { classesQuery } from '../signin'
import { testsQuery } from '../tests/queries'
import type { Found } from './found'

/** The pages of a class, by the names their links have. */
const pages = [
  { name: 'Today', path: '' },
  { name: 'Listen', path: '/listen' },
  { name: 'Plan', path: '/plan' },
  ...chapters.map((c) => ({ name: c.label, path: `/set-up?chapter=${c.key}` })),
]

/** usePlaces are the places a director can go to: of the class in view, and the other classes. */
export function usePlaces(): Found[] {
  const here = useMatch('/class/:classId/*')?.params.classId
  const classes = useQuery(classesQuery).data ?? []
  const classId = here ?? lastClass() ?? classes[0]?.id ?? ''
  const setUp = useQuery({ ...setUpQuery(classId), enabled: classId !== '' }).data
  const catalogue = useQuery(catalogueQuery).data
  const tests = useQuery({ ...testsQuery(classId), enabled: classId !== '' }).data
  if (!classId) return []
  const base = `/class/${classId}`
  const section = (key: string) => setUp?.instruments.find((i) => i.key === key)?.name ?? ''
  return [
    ...pages.map((p) => ({ name: p.name, what: 'page', to: base + p.path })),
    ...(setUp?.players ?? []).map((p) => ({
      name: `${p.first} ${p.last}`,
      what: `player, ${section(p.instrument)}`,
      to: `${base}/player/${p.id}`,
    })),
    ...(tests?.tests ?? []).map((t) => ({ name: t.name, what: 'test', to: `${base}/test/${t.step_id}` })),
    ...(catalogue?.kinds ?? []).map((k) => ({
      name: k.name,
      what: 'exercise: add it to the plan',
      to: `${base}/plan?add=${k.key}`,
    })),
    ...classes.filter((c) => c.id !== classId).map((c) => ({ name: c.name, what: 'class', to: `/class/${c.id}` })),
  ]
}
