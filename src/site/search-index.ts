import type { Records } from '../core/records/records'
import { wordsForFinding } from '../core/text/folding'
import { topicsInOrder } from '../core/tree/walk'
import type { Addresses } from './addresses'

/** The shard in which a word lies: its first two letters, as hexadecimal code points, so that it is a file name. */
const shardOf = (word: string): string =>
  [...word]
    .slice(0, 2)
    .map((letter) => letter.codePointAt(0)!.toString(16))
    .join('-')

const ENTRIES = 200

/**
 * The search index as small classic scripts, which load from disk too. A shard holds, for each of its words, the
 * numbers of the topics that contain it, topics with the word in their text first; entries hold title and address.
 */
export function searchIndex(records: Records, addresses: Addresses): { path: string; content: string }[] {
  const entries: [string, string, string][] = []
  const shards = new Map<string, Map<string, { title: number[]; note: number[] }>>()
  for (const map of addresses.published)
    for (const topic of topicsInOrder(records, map.id)) {
      const number = entries.push([topic.text || 'Untitled', addresses.topic(topic)!, map.title]) - 1
      const inTitle = new Set(wordsForFinding(topic.text))
      const inNote = new Set(wordsForFinding(records.get('note', topic.note)?.text ?? ''))
      for (const word of new Set([...inTitle, ...inNote])) {
        const name = shardOf(word)
        let shard = shards.get(name)
        if (!shard) shards.set(name, (shard = new Map()))
        let found = shard.get(word)
        if (!found) shard.set(word, (found = { title: [], note: [] }))
        found[inTitle.has(word) ? 'title' : 'note'].push(number)
      }
    }
  const files: { path: string; content: string }[] = []
  for (const [name, words] of shards) {
    const postings = Object.fromEntries(
      [...words].sort(([a], [b]) => (a < b ? -1 : 1)).map(([word, found]) => [word, [found.title, found.note]]),
    )
    files.push({ path: `search/${name}.js`, content: `folvetSearch.shard(${json(name)},${json(postings)})\n` })
  }
  for (let at = 0; at < entries.length; at += ENTRIES)
    files.push({
      path: `search/entries-${at / ENTRIES}.js`,
      content: `folvetSearch.entries(${at / ENTRIES},${json(entries.slice(at, at + ENTRIES))})\n`,
    })
  files.push({
    path: 'search/shards.js',
    content: `folvetSearch.known(${json([...shards.keys()].sort())},${ENTRIES})\n`,
  })
  return files
}

/** JSON that is also a script literal. */
const json = (value: unknown): string =>
  JSON.stringify(value).replace(/[\u2028\u2029<]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`)
