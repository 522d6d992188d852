import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buildSync } from 'esbuild'
import { v7 as uuid } from 'uuid'
import { prepareChange } from '../src/core/changes/prepare'
import { duplicateBranches } from '../src/core/commands/duplicate-branches'
import { hangItems } from '../src/core/commands/hang-items'
import { makeMap } from '../src/core/commands/maps'
import { readText } from '../src/core/formats/read-text'
import { CollectionId } from '../src/core/records/ids'
import { Records } from '../src/core/records/records'
import { type Measurement, median, seededRandom } from './measure'

const PAGES = 1_000
const LIMIT_MS = 8_000
const LIMIT_MB = 300
const LIMIT_PUBLISH_MS = 6_000
const WORDS = 'water dam peat ditch well moss curlew spring winter board path meadow canal north south'.split(' ')

/** A page with a note, a link to the next page, and 54 topics in headings and lists. */
export function page(number: number, random: () => number): string {
  const words = (count: number) =>
    Array.from({ length: count }, () => WORDS[Math.floor(random() * WORDS.length)]).join(' ')
  const sections = Array.from({ length: 6 }, () => {
    const items = Array.from({ length: 8 }, (_, i) => (i % 3 === 0 ? `- ${words(4)}` : `  - ${words(5)}`))
    return `## ${words(3)}\n\n${words(20)}\n\n${items.join('\n')}\n`
  })
  const next = `p${(number + 1) % PAGES}.md`
  return `# Page ${number} ${words(2)}\n\n${words(30)} See [next](${next}).\n\n${sections.join('\n')}`
}

/** The child as plain JavaScript, as the product runs: what compiles TypeScript on the way would count as its memory. */
function compiled(folder: string): string {
  const outfile = join(folder, 'child.mjs')
  const banner = "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url)"
  buildSync({
    entryPoints: [join(import.meta.dirname, 'import-child.ts')],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    banner: { js: banner },
  })
  return outfile
}

const base = { unit: 'ms', peer: null, peerValue: null, ratio: null } as const

/**
 * 1,000 CommonMark pages with some 54,000 topics, from a folder to records that are checked and ready to be stored; then
 * their site. Without the database: what that costs is told by change-rate.
 */
export function measureImport(): Measurement[] {
  const folder = mkdtempSync(join(tmpdir(), 'folvet-bench-'))
  try {
    const random = seededRandom(54)
    const pages = join(folder, 'pages')
    mkdirSync(pages)
    for (let i = 0; i < PAGES; i++) writeFileSync(join(pages, `p${i}.md`), page(i, random))
    const { stdout } = spawnSync(process.execPath, [compiled(folder), pages], { encoding: 'utf8' })
    const result = JSON.parse(stdout) as {
      ok: boolean
      topics: number
      importMs: number
      importMemory: number
      publishMs: number
      files: number
    }
    const { importMs, importMemory, publishMs } = result
    return [
      {
        ...base,
        name: 'import-54k',
        value: importMs,
        limit: LIMIT_MS,
        ok: result.ok && importMs < LIMIT_MS && importMemory < LIMIT_MB,
        note: `${result.topics} topics, ${importMemory.toFixed(0)} MB of ${LIMIT_MB}, without the database`,
      },
      {
        ...base,
        name: 'publish-54k',
        value: publishMs,
        limit: LIMIT_PUBLISH_MS,
        ok: publishMs < LIMIT_PUBLISH_MS,
        note: `${result.files} files, in memory`,
      },
    ]
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

const COPIED = 5_000
const LIMIT_COPY_MS = 500

/** A branch of 5,000 topics, each fifth with a note, is copied below another topic, checked and ready to be stored. */
export function measureCopy(): Measurement {
  const records = new Records()
  const newIds = { newId: uuid }
  const collection = CollectionId.parse(uuid())
  records.put('collection', { id: collection, title: 'Bench', homeMap: null, look: null, limits: null, trashed: false })
  const made = makeMap(records, { collection, title: 'Copies' }, newIds)
  prepareChange(records, made.change.edits, true)
  const root = made.select[0]!
  const lines = Array.from({ length: COPIED - 1 }, (_, i) => {
    const indent = '  '.repeat(1 + (i % 4))
    return `${indent}- topic ${i}${i % 5 === 0 ? `\n\n${indent}  Its note.\n` : ''}`
  })
  const pasted = hangItems(
    records,
    { topic: root, items: readText(`# Branch\n\n- head\n${lines.join('\n')}`).items, act: 'Paste' },
    newIds,
  )
  prepareChange(records, pasted.change.edits, true)
  const times: number[] = []
  for (let round = 0; round < 5; round++) {
    const start = performance.now()
    const { change } = duplicateBranches(records, { topics: pasted.select, onto: root }, newIds)
    prepareChange(records, change.edits, true)
    times.push(performance.now() - start)
  }
  const value = median(times)
  return { ...base, name: 'copy-branch-5k', value, limit: LIMIT_COPY_MS, ok: value < LIMIT_COPY_MS }
}
