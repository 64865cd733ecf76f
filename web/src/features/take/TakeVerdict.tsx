import { ToggleGroup } from 'radix-ui'
import { Problem } from '../../ui/Problem'
import { ResultMark, resultWords } from '../../ui/ResultMark'
import { type TakeDetail, useOverrule, type Word } from './queries'

/** The results a director may give, in the order of the marks. */
const words: Word[] = ['clean', 'nearly', 'not-yet', 'cant-tell']

/** TakeVerdict says the measured word, and takes the director's beside it. */
export function TakeVerdict({ take, directs }: { take: TakeDetail; directs: boolean }) {
  if (!take.verdict) return null
  return (
    <section aria-label="Verdict" className="flex flex-wrap items-start justify-between gap-x-10 gap-y-4 py-5">
      <div className="min-w-0 flex-1">
        <p className="font-serif text-xl">
          <ResultMark
            result={take.overruled ?? take.verdict.result}
            overruled={Boolean(take.overruled)}
            withWord
            size={26}
          />
        </p>
        <p className="mt-1 text-lg">{take.verdict.sentence}</p>
        {take.overruled && <p className="text-sm text-soft">Measured: {resultWords[take.verdict.result]}.</p>}
        <p className="mt-1 text-soft">Tip shown: {take.verdict.tip.text}</p>
      </div>
      {directs && <YourWord take={take} />}
    </section>
  )
}

/** YourWord takes the director's word, which counts in the place of the measured one. */
function YourWord({ take }: { take: TakeDetail }) {
  const overrule = useOverrule(take.id)
  return (
    <div className="no-print">
      <p id="overrule" className="text-sm text-soft">
        Your call
      </p>
      <ToggleGroup.Root
        type="single"
        aria-labelledby="overrule"
        value={take.overruled ?? ''}
        onValueChange={(v) => overrule.mutate((v || 'measured') as Word)}
        className="mt-1 flex flex-wrap rounded-md border border-edge bg-sheet"
      >
        {words.map((w) => (
          <ToggleGroup.Item
            key={w}
            value={w}
            className="min-h-11 border-r border-rule px-3 text-sm last:border-0 data-[state=on]:bg-warm-wash"
          >
            {w !== 'measured' && <ResultMark result={w} withWord size={15} />}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      <p className="mt-1 text-xs text-soft">Press again to go back to the measured result.</p>
      {overrule.error && <Problem error={overrule.error} />}
    </div>
  )
}
