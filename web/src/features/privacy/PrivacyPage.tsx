/** What is kept of whom, and why: each with how long. */
const kept = [
  {
    what: 'A child’s name, instrument and the school’s number',
    why: 'So that the director knows who played.',
    until: 'Until the child is deleted, or the class is.',
  },
  {
    what: 'Recordings of warm-ups',
    why: 'So that the director can listen, and the child can hear itself.',
    until:
      'As many days as the class keeps them: a year, unless the director chose otherwise. Then the sound is deleted.',
  },
  {
    what: 'What was measured: pitch, steadiness, tone, timing, and the word on it',
    why: 'So that growth can be seen, and the next warm-up fits.',
    until: 'As long as the class, or as many days as the director chose.',
  },
  {
    what: 'Comments and voice notes of directors',
    why: 'So that the child reads or hears what to try.',
    until: 'Comments with their take; voice notes as many days as the class keeps them.',
  },
  {
    what: 'Who signed in, saw, heard, changed, exported or deleted what, and when',
    why: 'So that the school can answer for it. No names stand in it.',
    until: 'As long as the school keeps the program.',
  },
]

/** PrivacyPage says in plain words what is kept of a child, and what is not. */
export function PrivacyPage() {
  return (
    <div className="mx-auto max-w-2xl pt-4">
      <h1 className="text-2xl">What is kept of a child</h1>
      <p className="mt-3">
        The program runs on the school’s own machine. It sends nothing to anybody else: no other company’s scripts,
        letters, pictures or counters are in these pages. No recording is used for anything but practice and teaching.
      </p>
      <dl className="mt-6 space-y-4">
        {kept.map((k) => (
          <div key={k.what} className="border-l-2 border-warm pl-3">
            <dt className="font-serif text-lg">{k.what}</dt>
            <dd>{k.why}</dd>
            <dd className="text-soft">{k.until}</dd>
          </div>
        ))}
      </dl>
      <h2 className="mt-8">Who sees and hears it</h2>
      <p className="mt-1">
        The child, and the directors of its class. Others see first names and an initial at most. There is no ranking. A
        recording is played to the class only where the home agreed. An administrator of the school sees who works here
        and what was done, and hears nobody. A helper or a family comes in only with a pass that the director gave,
        until a day, and a family sees its own child alone.
      </p>
      <h2 className="mt-8">What you can ask for</h2>
      <p className="mt-1">
        Ask the director, or the school’s administrator: to see everything kept of your child, as a file; to have
        something put right; to have all of it deleted. Deleting takes everything everywhere at once, and says what it
        took; backups still hold it until they are let go of. You can say no to recording, to keeping, or to playing in
        class, and take back a yes. Without recording your child practices all the same: its own device listens, and
        nothing is kept.
      </p>
      <h2 className="mt-8">On a child’s device</h2>
      <p className="mt-1">
        Recordings that have not reached the school yet wait on the device, under a key that signing out forgets. The
        microphone is on only between the press and the end of a recording, and the page shows that it is.
      </p>
      <p className="mt-8 text-soft">
        This page says what the program does. The law of your place and the rules of your school come before it; the
        school answers for what it keeps.
      </p>
    </div>
  )
}
