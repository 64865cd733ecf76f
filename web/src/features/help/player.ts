import type { PageHelp } from './pages'

/** A player's pages, by their title. */
export const playerHelp: Record<string, PageHelp> = {
  Practice: {
    about: 'Here is what to play today, one step at a time.',
    ways: [
      { want: 'Play a step', how: 'Read it. Press Record. Four clicks, then you play. It stops by itself.' },
      { want: 'Hear it first', how: 'Press “Hear how it sounds”.' },
      { want: 'Go slower', how: 'Press “slower” below the notes.' },
      { want: 'Work on one note', how: 'Press “Work on a part of it”, then pick the note.' },
      { want: 'Ask something', how: 'Press “Ask your director”. The answer comes to this page.' },
      { want: 'Stop when it hurts', how: 'Press “It hurts, or I feel dizzy”. It is in sight at all times.' },
    ],
  },
  Fingerings: {
    about: 'Here is each note of your instrument and how to finger it.',
    ways: [
      { want: 'Hear a note', how: 'Press “Hear it” on its card.' },
      { want: 'Try a note', how: 'Press “Play it”. The page says which note came.' },
    ],
  },
  'Which note is that?': {
    about: 'Play any note and see its name. It is not kept.',
    ways: [
      { want: 'Tune', how: 'Hold a note. Left is flat, right is sharp.' },
      { want: 'Play with a drone', how: 'Pick a note, put headphones on, press “Sound the drone”.' },
    ],
  },
  Lessons: {
    about: 'Here is how to build it, hold it and keep it well.',
    ways: [{ want: 'Read it in order', how: 'Go from card to card. Each has a number.' }],
  },
  'My progress': {
    about: 'Here is how you have grown. Only you and your teachers see it.',
    ways: [{ want: 'Go on', how: 'Press “Back to practicing”.' }],
  },
}

/** The words of the page, as a player meets them. */
export const playerWords: [string, string][] = [
  ['clean', 'All was as asked.'],
  ['nearly', 'Almost. One thing is a bit off.'],
  ['not yet', 'Not there. Read the tip and try again.'],
  ['can’t tell', 'It could not be heard well. That is not your fault.'],
  ['take', 'One recording of one step.'],
  ['ribbon', 'Your sound as a strip of ink.'],
  ['ladder, rung', 'Small steps up to a hard note.'],
  ['tip', 'One thing to try next.'],
]
