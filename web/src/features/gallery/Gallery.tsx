import type { ReactNode } from 'react'
import { Ribbon } from '../../ribbon/Ribbon'
import { RibbonLegend } from '../../ribbon/RibbonLegend'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { type Result, ResultMark, resultWords } from '../../ui/ResultMark'
import { samples } from './samples'

/** Gallery shows every part in every state; in development only. */
export function Gallery() {
  return (
    <div className="space-y-10">
      <h1 className="text-2xl">Gallery</h1>
      <Part name="Results">
        <div className="grid max-w-md grid-cols-2 gap-2">
          {/* From the words, so that a new result cannot be forgotten here. */}
          {(Object.keys(resultWords) as Result[]).map((r) => (
            <ResultMark key={r} result={r} withWord size={24} />
          ))}
          <ResultMark result="clean" overruled withWord size={24} />
        </div>
      </Part>
      <Part name="Ribbon, in a board cell and at full width">
        <RibbonLegend />
        {samples.map(({ name, ribbon }) => (
          <div key={name} className="mt-6">
            <p className="font-serif">{name}</p>
            <div className="flex flex-wrap items-center gap-6">
              <span className="w-24">
                {/* The three sizes the program draws: a board's cell, a list's row, a take's own page. */}
                <Ribbon ribbon={ribbon} width={96} height={24} />
              </span>
              <span className="w-56">
                <Ribbon ribbon={ribbon} width={224} height={36} />
              </span>
              <span className="w-full max-w-3xl bg-sheet">
                <Ribbon ribbon={ribbon} width={760} height={210} large />
              </span>
            </div>
          </div>
        ))}
      </Part>
      <Part name="Buttons">
        <div className="flex flex-wrap items-center gap-3">
          <Button look="main">Main</Button>
          <Button look="main" size="large">
            Large
          </Button>
          <Button>Plain</Button>
          <Button look="quiet">Quiet</Button>
          <Button look="main" disabled>
            Disabled
          </Button>
        </div>
      </Part>
      <Part name="Fields and problems">
        <div className="grid max-w-2xl gap-4">
          <Field label="A field" hint="With a hint." />
          <Field label="A field that is wrong" problem="hold each note for 2 to 16 whole beats" defaultValue="40" />
          {/* An error as the browser throws it; the server's come with fields and stand at them. */}
          <Problem error={new Error('The recording is empty. Record again.')} />
        </div>
      </Part>
      <Part name="Type">
        <p className="text-2xl font-serif">Long, warm notes first</p>
        <p className="text-xl font-serif">Long, warm notes first</p>
        <p className="text-lg font-serif">Long, warm notes first</p>
        <p className="text-base">Long, warm notes first</p>
        <p className="text-sm text-soft">Long, warm notes first</p>
      </Part>
    </div>
  )
}

/** Part is one kind of thing the page draws, in all its states. */
function Part({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section className="border-t border-rule pt-4">
      <h2 className="mb-3">{name}</h2>
      {children}
    </section>
  )
}
