import { COMMON_WORDS } from '../matching/common-words'
import { stemOf } from '../matching/stems'
import { wordsForFinding } from '../text/folding'

/** A text in which something may be named, and what is known under a name. Ids are the caller's. */
export interface Telling {
  id: string
  text: string
}

/** One text names what another one is called. */
export interface Mention {
  /** In which text, and what is named there. */
  in: string
  of: string
  /** Number of the first word of the name in the text, and how many words it has. */
  at: number
  words: number
}

/** Names of more words than this are sentences, which nobody repeats word by word. */
const LONGEST_NAME = 8
/** A name with a single word that says anything is looked for where that is as long as this, and no more texts than these use it. */
const LEAST_LETTERS = 5
const MOST_TEXTS = 12
/** What more texts than this name is a common word here, not something to link. */
const MOST_NAMED = 40
/** So many are told at most. */
const MOST_MENTIONS = 300_000

/** A node of the tree of names: by the next word, and what ends here. */
interface Branch {
  next: Map<string, Branch>
  /** The longest other beginning of a name that is read when this one is. */
  back: Branch | null
  /** The nearest such branch at which a name ends. */
  shorter: Branch | null
  ends: string[]
  depth: number
}

const branch = (depth: number): Branch => ({ next: new Map(), back: null, shorter: null, ends: [], depth })

const wordsOf = (text: string): string[] => wordsForFinding(text).map(stemOf)

/**
 * Where texts name something that is called so elsewhere, as whole words, in any form: all names are looked for at once
 * (Aho and Corasick 1975, Efficient string matching, over words instead of letters). Names are left out that say little: of
 * one short or common word, or of very many. Each is told once for a text. In the order of the texts.
 * O(words of the texts and names, and mentions).
 */
export function mentionsIn(texts: readonly Telling[], names: readonly Telling[]): Mention[] {
  const words = texts.map(({ text }) => wordsOf(text))
  const uses = new Map<string, number>()
  for (const each of words) for (const word of new Set(each)) uses.set(word, (uses.get(word) ?? 0) + 1)
  const tree = treeOf(names.flatMap((name) => (isTelling(name.text, uses) ? name : [])))
  const mentions: Mention[] = []
  const timesOf = new Map<string, number>()
  texts.forEach(({ id }, i) => {
    const told = new Set<string>()
    let at = tree
    words[i]!.forEach((word, place) => {
      let from: Branch | null = at
      while (from && !from.next.has(word)) from = from.back
      at = from?.next.get(word) ?? tree
      for (let found: Branch | null = at; found; found = found.shorter)
        for (const of of found.ends) {
          if (told.has(of) || of === id) continue
          told.add(of)
          timesOf.set(of, (timesOf.get(of) ?? 0) + 1)
          if (timesOf.get(of)! <= MOST_NAMED && mentions.length < MOST_MENTIONS)
            mentions.push({ in: id, of, at: place - found.depth + 1, words: found.depth })
        }
    })
  })
  return mentions.filter(({ of }) => timesOf.get(of)! <= MOST_NAMED)
}

function isTelling(text: string, uses: ReadonlyMap<string, number>): boolean {
  const words = wordsForFinding(text)
  if (words.length === 0 || words.length > LONGEST_NAME) return false
  const [first, ...more] = words.filter((word) => !COMMON_WORDS.has(word))
  if (first === undefined || more.length > 0) return first !== undefined
  return first.length >= LEAST_LETTERS && (uses.get(stemOf(first)) ?? 0) <= MOST_TEXTS
}

/** All names as a tree of words, with the ways back that are taken where the next word fits nothing. */
function treeOf(names: readonly Telling[]): Branch {
  const root = branch(0)
  for (const { id, text } of names) {
    let at = root
    for (const word of wordsOf(text)) {
      let next = at.next.get(word)
      if (!next) at.next.set(word, (next = branch(at.depth + 1)))
      at = next
    }
    at.ends.push(id)
  }
  const waiting = [root]
  for (const at of waiting)
    for (const [word, next] of at.next) {
      let back = at.back
      while (back && !back.next.has(word)) back = back.back
      next.back = at === root ? root : (back?.next.get(word) ?? root)
      next.shorter = next.back.ends.length > 0 ? next.back : next.back.shorter
      waiting.push(next)
    }
  return root
}
