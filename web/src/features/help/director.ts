import type { PageHelp } from './pages'

/** A director's pages, by their title. */
export const directorHelp: Record<string, PageHelp> = {
  Today: {
    about: 'Who played what today, a ribbon for each player’s latest take of each step.',
    ways: [
      { want: 'See who has not played', how: 'Choose “not played” under With.' },
      { want: 'Hear a take', how: 'Press its ribbon.' },
      { want: 'See what the class has in common', how: 'The lines at the top say it. Press one to see its takes.' },
      { want: 'Answer a question', how: 'Press Answer beside it. The player reads it on the practice page.' },
      { want: 'Change a step', how: 'Press its name in the head of the board.' },
      { want: 'Play it with the class', how: 'Press “Play with the class”.' },
      { want: 'Excuse a player, or give a new PIN', how: 'Press the three dots beside the name.' },
      { want: 'See a test’s results', how: 'Press the test’s name above the board.' },
      { want: 'Find a player, an exercise or a page', how: 'Press Search, or Ctrl or ⌘ and K, on any page.' },
    ],
  },
  Listen: {
    about: 'Ten minutes of listening: short excerpts, those that need an ear first, each with its reason.',
    ways: [
      { want: 'Go on to the next', how: 'Press Next. Nothing is lost: it comes back another day.' },
      { want: 'Say it is right, or not', how: 'Accept the measured result, or choose your own.' },
      { want: 'Say something', how: 'Write a comment, or speak a voice note.' },
    ],
  },
  'A take': {
    about: 'One take: the ribbon, its sound, what was measured, and what you and the player said.',
    ways: [
      { want: 'Hear what happened', how: 'Press an event beside the ribbon. It plays from just before it.' },
      { want: 'Compare', how: 'Choose another take under the ribbon. Both stand on one time axis.' },
      { want: 'Go to the next player', how: 'Press the name at the head of the page.' },
      { want: 'Overrule', how: 'Choose under “Your call”. Press again to go back to the measured result.' },
    ],
  },
  Plan: {
    about: 'The week: exercises on days, in class and at home, within your minutes.',
    ways: [
      { want: 'Find an exercise', how: 'Type what it is called or what it is for. Press it to add it to the day.' },
      { want: 'Fit the day into its minutes', how: 'Press “Fit to minutes”. It says what it leaves out.' },
      {
        want: 'Give a new note',
        how: 'Press “Notes known”, choose it for each section, and save. It gets its own step.',
      },
      { want: 'Make a step a test', how: 'In the step, choose “A test”. Say when it is due and how many takes count.' },
      {
        want: 'Play it for them',
        how: 'In the step, “Play it for them”. Players hear it, slower too, at the same pitch.',
      },
      { want: 'Use a week again', how: 'Choose “Copy from …”: a week of yours, of another class, or a template.' },
      { want: 'Print', how: 'Press “Print and export”. Paper is Letter or A4 by your school’s place.' },
    ],
  },
  Class: {
    about: 'Who is in the class, who comes in, and how it is taught.',
    ways: [
      { want: 'Give a new PIN', how: 'Players: press “Sign-in of …”, then “New PIN”. It is shown on the screen.' },
      { want: 'Excuse a player', how: 'Excused: choose the player and the days.' },
      { want: 'Change class', how: 'Press the class’s name at the head of any page.' },
      { want: 'Bring players in', how: 'Players: “Import roster”, from any list.' },
      { want: 'Change what is judged', how: 'Teaching choices: limits by stage, schools of teaching, names of notes.' },
    ],
  },
  'A section': {
    about: 'A section’s notes and tone over weeks: which note is the next trouble spot.',
    ways: [{ want: 'See one player', how: 'Press the name.' }],
  },
  'A player': {
    about: 'How one player has grown, with dates, ladders, tone and comments.',
    ways: [{ want: 'Send it home', how: 'Press “A page for home”: what went well, one thing to try, how to help.' }],
  },
  'A test': {
    about: 'Who has handed a test in, and how it went.',
    ways: [
      { want: 'See who has not handed it in', how: 'Choose it under Show.' },
      {
        want: 'Take the results to your gradebook',
        how: 'Press “Results (CSV)”, or take the whole gradebook out: Class.',
      },
      { want: 'Overrule a result', how: 'Press the take that counts, and choose under “Your call”.' },
    ],
  },
  'Play with the class': {
    about: 'The day’s steps at the front of the room, step by step.',
    ways: [{ want: 'Go on', how: 'Press the large button, or the keys at the foot of the page.' }],
  },
}

/** The words of the program. The whole glossary is in its documentation. */
export const directorWords: [string, string][] = [
  ['clean, nearly, not yet', 'Every measure within its limit; one a little outside; more than that.'],
  ['can’t tell', 'The recording was at fault, never the player.'],
  ['ribbon', 'A take drawn as ink: along is time, up and down is pitch, thickness is loudness.'],
  ['take', 'One recording of one step by one player.'],
  ['ladder, rung', 'An ordered way into a hard note, in small steps.'],
  ['stage', 'How far a player has come, 1 to 4, by school weeks from the first lesson.'],
  ['notes known', 'What a section has learnt. Patterns use these notes only.'],
  ['new note', 'A note given this week: heard, fingered, played alone, then found from one that is known.'],
  ['test', 'A step due on a day. So many takes count, the best or the last; hard notes are held against nobody.'],
  ['model', 'Your own playing of a step, for players to hear.'],
  ['hard note', 'A note beginners are not held to: counted as tried.'],
  ['simulated', 'A simulated player made it. Always said where it is.'],
]
