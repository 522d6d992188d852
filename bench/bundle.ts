import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { namesOfParts } from '../scripts/setup/parts.mjs'
import type { Measurement } from './measure'

const CLIENT = join(import.meta.dirname, '..', 'dist', 'client', '_astro')
const KB = 1_000

/** A script and every script that it imports at once, by file name. */
function closure(entries: readonly string[]): Set<string> {
  const needed = new Set(entries)
  for (const name of needed) {
    const code = readFileSync(join(CLIENT, name), 'utf8')
    for (const [, imported = ''] of code.matchAll(/(?:from|import)\s*["']\.\/([\w.-]+\.js)["']/g)) needed.add(imported)
  }
  return needed
}

/** Scripts needed to edit a map, compressed: what the workspace imports at once. What waits for its use is told beside it. */
export function measureBundle(): Measurement {
  const all: readonly string[] = namesOfParts(join(CLIENT, '..', '..'))
  const size = (names: Iterable<string>) =>
    [...names].reduce((sum, name) => sum + gzipSync(readFileSync(join(CLIENT, name))).length, 0) / KB
  const needed = closure(all.filter((name) => /^(WorkspacePage|client)\.[\w-]+\.js$/.test(name)))
  const withNote = closure([...needed, ...all.filter((name) => /^NoteEditor\.[\w-]+\.js$/.test(name))])
  const value = size(needed)
  const note = `${(size(withNote) - value).toFixed(0)} kB more come with the first note that is shown or written`
  return {
    name: 'bundle',
    value,
    unit: 'kB',
    peer: null,
    peerValue: null,
    ratio: null,
    limit: 400,
    ok: value < 400,
    note,
  }
}

/** The script of a published map page. */
export function measureReader(): Measurement {
  const value = readFileSync(join(import.meta.dirname, '..', 'src', 'site', 'assets', 'reader.js')).length / KB
  return { name: 'bundle-site', value, unit: 'kB', peer: null, peerValue: null, ratio: null, limit: 30, ok: value < 30 }
}
