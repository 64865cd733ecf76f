import { useQuery } from '@tanstack/react-query'
import { useMatch } from 'react-router'
import type { Schemas } from '../../api/client'
import { chapters } from '../class/chapters'
import { lastClass } from '../class/lastClass'
import { type SetUp, setUpQuery } from '../class/queries'
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

/** What a director's lists hold, as far as they have arrived. */
type Lists = {
  classes: Schemas['ClassName'][]
  setUp?: SetUp
  kinds?: Schemas['KindChoice'][]
  tests?: Schemas['TestLine'][]
}

/**
 * usePlaces are the places a director can go to: of the class in view, and the other classes.
 * More are coming until each list has arrived or failed.
 */
export function usePlaces(): { places: Found[]; coming: boolean } {
  const here = useMatch('/class/:classId/*')?.params.classId
  const known = useQuery(classesQuery)
  const classes = known.data ?? []
  const classId = here ?? lastClass() ?? classes[0]?.id ?? ''
  const setUp = useQuery({ ...setUpQuery(classId), enabled: classId !== '' })
  const catalogue = useQuery(catalogueQuery)
  const tests = useQuery({ ...testsQuery(classId), enabled: classId !== '' })
  const coming = [known, setUp, catalogue, tests].some((list) => list.isLoading)
  const lists = { classes, setUp: setUp.data, kinds: catalogue.data?.kinds, tests: tests.data?.tests }
  return { places: classId ? placesOf(classId, lists) : [], coming }
}

/** placesOf are the places of one class, its pages first, and the other classes. */
function placesOf(classId: string, { classes, setUp, kinds, tests }: Lists): Found[] {
  const base = `/class/${classId}`
  const section = (key: string) => setUp?.instruments.find((i) => i.key === key)?.name ?? ''
  return [
    ...pages.map((p) => ({ name: p.name, what: 'page', to: base + p.path })),
    ...(setUp?.players ?? []).map((p) => ({
      name: `${p.first} ${p.last}`,
      what: `player, ${section(p.instrument)}`,
      to: `${base}/player/${p.id}`,
    })),
    ...(tests ?? []).map((t) => ({ name: t.name, what: 'test', to: `${base}/test/${t.step_id}` })),
    ...(kinds ?? []).map((k) => ({
      name: k.name,
      what: 'exercise: add it to the plan',
      to: `${base}/plan?add=${k.key}`,
    })),
    ...classes.filter((c) => c.id !== classId).map((c) => ({ name: c.name, what: 'class', to: `/class/${c.id}` })),
  ]
}
