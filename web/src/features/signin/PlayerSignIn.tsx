import { type FormEvent, useEffect, useRef, useState } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'
import { codeOfAddress } from '../../ui/codeOfAddress'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { useOpenClass, usePlayerSignIn } from './queries'
import { isShared, SharedDevice } from './SharedDevice'

/** PlayerSignIn asks for the class code, then shows names, then asks for the PIN. */
export function PlayerSignIn() {
  const [code, setCode] = useState(codeOfAddress)
  const [picked, setPicked] = useState<Schemas['PickedName']>()
  const open = useOpenClass()
  const find = open.mutate
  // Who scanned the card's square has said which class: the names come at once.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, for the code of the card
  useEffect(() => {
    if (code) find(code)
  }, [find])
  function submit(e: FormEvent) {
    e.preventDefault()
    open.mutate(code)
  }
  // Three small pages in one: nothing of a child's sign-in may stand in the address bar of a
  // shared machine.
  if (picked) return <EnterPIN code={code} player={picked} onBack={() => setPicked(undefined)} />
  if (open.data) return <PickName names={open.data} onPick={setPicked} />
  return (
    <form onSubmit={submit} className="space-y-5">
      <Field
        label="Class code"
        hint="The words on your card, with or without the dashes."
        value={code}
        onChange={(e) => setCode(e.target.value)}
        autoComplete="off"
        // Codes are printed in capitals; a phone's keyboard would begin in small letters.
        autoCapitalize="characters"
        spellCheck={false}
        required
      />
      {open.error && <Problem error={open.error} />}
      <Button type="submit" look="main" disabled={open.isPending}>
        Find my class
      </Button>
    </form>
  )
}

/** useFirst puts the focus where a new page of the three begins. */
function useFirst<E extends HTMLElement>() {
  const first = useRef<E>(null)
  useEffect(() => first.current?.focus(), [])
  return first
}

/** PickName shows first names and an initial: enough to find oneself, no more. */
function PickName({ names, onPick }: { names: Schemas['Names']; onPick: (p: Schemas['PickedName']) => void }) {
  const heading = useFirst<HTMLHeadingElement>()
  return (
    <>
      <h2 ref={heading} tabIndex={-1} className="outline-none">
        {names.class}: who are you?
      </h2>
      <ul className="mt-4 grid grid-cols-2 gap-2">
        {/* The instrument tells two children of one first name apart without a surname. */}
        {names.players.map((p) => (
          <li key={p.id}>
            <button
              type="button"
              onClick={() => onPick(p)}
              className="min-h-14 w-full rounded-md border border-rule bg-sheet px-3 py-2 text-left hover:border-warm"
            >
              <span className="block">{p.name}</span>
              <span className="block text-xs text-soft">{p.instrument}</span>
            </button>
          </li>
        ))}
      </ul>
    </>
  )
}

/** onBack picks another name: the wrong one is easily pressed. */
type PINProps = { code: string; player: Schemas['PickedName']; onBack: () => void }

/** EnterPIN asks for the numbers on the player's card. */
function EnterPIN({ code, player, onBack }: PINProps) {
  const [pin, setPIN] = useState('')
  const form = useRef<HTMLFormElement>(null)
  useEffect(() => form.current?.querySelector('input')?.focus(), [])
  const signIn = usePlayerSignIn()
  function submit(e: FormEvent) {
    e.preventDefault()
    signIn.mutate({ code, player_id: player.id, pin, shared: isShared() })
  }
  return (
    <form ref={form} onSubmit={submit} className="space-y-5">
      <h2>
        {player.name}, {player.instrument}
      </h2>
      <Field
        label="Your PIN"
        hint="The numbers on your card."
        value={pin}
        onChange={(e) => setPIN(e.target.value)}
        // Shoulders are close in a band room; the numeric keyboard comes by the input mode.
        type="password"
        inputMode="numeric"
        pattern="[0-9]{4,6}"
        maxLength={6}
        autoComplete="off"
        required
      />
      <SharedDevice />
      {signIn.error && <Problem error={signIn.error} />}
      <p className="flex gap-3">
        <Button type="submit" look="main" disabled={signIn.isPending}>
          Start
        </Button>
        <Button look="quiet" onClick={onBack}>
          That is not me
        </Button>
      </p>
    </form>
  )
}
