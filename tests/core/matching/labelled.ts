import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { MatchClass, TextTree } from '../../../src/core/matching/match-maps'

/** Two maps of which people said which topics are the same, and which are likely so. */
export interface LabelledMerge {
  name: string
  a: TextTree
  b: TextTree
  /** By `a b`. */
  pairs: ReadonlyMap<string, MatchClass>
}

const FOLDER = join(import.meta.dirname, 'merges')

/**
 * Reads the merges: an outline after `A`, one after `B`. A topic of A that is in a pair ends with `@` and a name; that of B
 * which is the same with `=` and this name, that which is likely the same with `~` and it.
 */
export const labelledMerges = (): LabelledMerge[] =>
  readdirSync(FOLDER)
    .sort()
    .map((file) => {
      const [, first = '', second = ''] = readFileSync(join(FOLDER, file), 'utf8').split(/^[AB]$/m)
      const [a, b] = [outline(first), outline(second)]
      const pairs = new Map<string, MatchClass>()
      for (const [node, mark] of b.marks) {
        const other = [...a.marks].find(([, { name }]) => name === mark.name)
        if (!other) throw new Error(`${file}: nothing in A is called ${mark.name}.`)
        pairs.set(`${other[0]} ${node}`, mark.sign === '=' ? 'same' : 'likely')
      }
      return { name: file.replace('.txt', ''), a: a.tree, b: b.tree, pairs }
    })

function outline(text: string) {
  const texts: string[] = []
  const parents: number[] = []
  const marks = new Map<number, { sign: string; name: string }>()
  const open: number[] = []
  for (const line of text.split('\n').filter((each) => each.trim() !== '')) {
    const level = line.search(/\S/) / 2
    const [, words = '', sign = '', name = ''] = /^(.*?)(?: ([@=~])(\w+))?$/.exec(line.trim())!
    open.length = level
    const node = texts.push(words) - 1
    parents.push(open[level - 1] ?? -1)
    open[level] = node
    if (sign) marks.set(node, { sign, name })
  }
  return { tree: { texts, parents }, marks }
}

/** How many of the found pairs are right, and how many of the right ones were found. */
export interface Quality {
  precision: number
  recall: number
  found: number
  right: number
}

/** Of the pairs called the same; and of those called the same or likely, against those that are either. */
export function qualityOf(
  merges: readonly LabelledMerge[],
  match: (merge: LabelledMerge) => readonly { a: number; b: number; class: MatchClass }[],
): { same: Quality; either: Quality } {
  const counts = { same: [0, 0, 0], either: [0, 0, 0] } as Record<'same' | 'either', [number, number, number]>
  for (const merge of merges) {
    const found = match(merge)
    counts.same[2] += [...merge.pairs.values()].filter((label) => label === 'same').length
    counts.either[2] += merge.pairs.size
    for (const pair of found) {
      const label = merge.pairs.get(`${pair.a} ${pair.b}`)
      counts.either[0]++
      if (label) counts.either[1]++
      if (pair.class !== 'same') continue
      counts.same[0]++
      if (label === 'same') counts.same[1]++
    }
  }
  const quality = ([found, hits, right]: [number, number, number]): Quality => ({
    precision: found === 0 ? 1 : hits / found,
    recall: right === 0 ? 1 : hits / right,
    found,
    right,
  })
  return { same: quality(counts.same), either: quality(counts.either) }
}
