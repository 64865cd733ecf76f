import { type ComponentType, lazy, useState } from 'react'

/**
 * later is a component whose script is loaded when it is first shown, or before, by load.
 * One that was loaded before is shown at once: React's own lazy would first show that it waits.
 */
export function later<Props extends object>(load: () => Promise<ComponentType<Props>>) {
  let loaded: ComponentType<Props> | undefined
  const get = async () => {
    loaded ??= await load()
    return { default: loaded }
  }
  const Lazy = lazy(get) as unknown as ComponentType<Props> // which takes the same props
  // biome-ignore lint/correctness/noComponentHookFactories: it is made once, with the module that shows it
  const Later = (props: Props) => {
    const [Shown] = useState(() => loaded ?? Lazy)
    return <Shown {...props} />
  }
  return Object.assign(Later, { load: get })
}
