// @vitest-environment node
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { fleschKincaid } from 'flesch-kincaid'
import { syllable } from 'syllable'
import ts from 'typescript'
import { expect, it } from 'vitest'

// What a child reads is read by a child of nine: Flesch and Kincaid's grade
// (Kincaid and others, Derivation of new readability formulas, 1975), and no sentence
// past fourteen words.

/** A grade is of all lines together; one line of four words says little. */
const wholeGrade = 4
/** The highest grade of one line of enough words to be graded. */
const lineGrade = 4
const enoughWords = 6
const longestSentence = 14

/** What only a player sees; their lines stand in these files. */
const pages = [
  'features/practice',
  'features/help/player.ts',
  'features/freeplay',
  'features/lessons',
  'features/microphone',
  'features/fingerings',
  'features/player/MyProgress.tsx',
  'features/player/Days.tsx',
  'features/signin/PlayerSignIn.tsx',
  'features/signin/SharedDevice.tsx',
  'features/signin/WhichClass.tsx',
  'features/signin/SignOut.tsx',
  'ear/microphone.ts',
]
/** What a director opens, too, or alone. */
const others = ['TryPage.tsx', 'OtherWays.tsx']

const src = import.meta.dirname

function filesOf(place: string): string[] {
  if (/\.tsx?$/.test(place)) return [place]
  return readdirSync(join(src, place))
    .filter((f) => /\.tsx?$/.test(f) && !f.includes('.test.') && !others.includes(f))
    .map((f) => join(place, f))
}

/** linesOf lists the words that a file shows: text in the page, and sentences in its strings. */
function linesOf(file: string): string[] {
  const source = ts.createSourceFile(file, readFileSync(join(src, file), 'utf8'), ts.ScriptTarget.Latest, true)
  const lines: string[] = []
  const look = (node: ts.Node) => {
    if (ts.isJsxText(node)) lines.push(node.text)
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) lines.push(node.text)
    ts.forEachChild(node, look)
  }
  look(source)
  return lines.map((l) => l.replace(/\s+/g, ' ').trim()).filter((l) => /^[A-Z].*[.?!…]$/.test(l))
}

/** coreLines are what the core says, written out by `earlychorus docs`. */
function coreLines(): string[] {
  const page = readFileSync(join(src, '../../docs/player-words.md'), 'utf8')
  return page
    .split('\n')
    .filter((l) => l.startsWith('- '))
    .map((l) => l.slice(2))
}

const wordsOf = (text: string) => text.match(/[\p{L}’']+/gu) ?? []
const sentencesOf = (text: string) => text.split(/[.?!:;…]+\s*/).filter((s) => wordsOf(s).length > 0)

/** Words that every player knows from the first day on count as short, however long they are. */
const known = /^(director|microphone|recording|record|instrument|browser|simulated|mouthpiece|register|octave)s?$/i
const syllables = (word: string) => (known.test(word) ? 1 : syllable(word))

function gradeOf(lines: string[]): number {
  const sentence = lines.flatMap(sentencesOf).length
  const words = lines.flatMap(wordsOf)
  return fleschKincaid({ sentence, word: words.length, syllable: words.reduce((sum, w) => sum + syllables(w), 0) })
}

/** What no player's page says unless they open the details: WORDS.md, 2. */
const forbidden = /\bcents?\b|millisecond|\bdB\b|\bHz\b|±|[A-H][♭♯]?[0-9]\b|concert [A-H]|RIFF|\bms\b/

const all: [string, string[]][] = [
  ['the core', coreLines()],
  ...pages
    .flatMap(filesOf)
    .map((f): [string, string[]] => [f, linesOf(f)])
    .filter(([, lines]) => lines.length > 0),
]

it('finds the words', () => {
  expect(all.flatMap(([, lines]) => lines).length).toBeGreaterThan(500)
})

it('is written for a child, all of it together', () => {
  expect(gradeOf(all.flatMap(([, lines]) => lines))).toBeLessThanOrEqual(wholeGrade)
})

it.each(all)('%s is written for a child, line by line', (_, lines) => {
  const hard = lines.filter((l) => wordsOf(l).length >= enoughWords && gradeOf([l]) > lineGrade)
  expect(hard).toEqual([])
  const long = lines.filter((l) => sentencesOf(l).some((s) => wordsOf(s).length > longestSentence))
  expect(long).toEqual([])
})

it.each(all)('%s says no cents, no milliseconds, no octave digits', (_, lines) => {
  expect(lines.filter((l) => forbidden.test(l))).toEqual([])
})
