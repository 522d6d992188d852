import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { prepareChange } from '../src/core/changes/prepare'
import { importPages } from '../src/core/commands/import-pages'
import { CollectionId } from '../src/core/records/ids'
import { Records } from '../src/core/records/records'
import { buildSite } from '../src/site/site'

/** Imports the pages of a folder in a process of its own, so that its memory is its own; then publishes them. */
const [folder = ''] = process.argv.slice(2)
const records = new Records()
const collection = CollectionId.parse(uuid())
records.put('collection', { id: collection, title: 'Bench', homeMap: null, look: null, limits: null, trashed: false })

const start = performance.now()
const pages = readdirSync(folder)
  .sort()
  .map((path) => ({ path, text: readFileSync(join(folder, path), 'utf8') }))
const { change } = importPages(records, { collection, pages, files: new Map() }, { newId: uuid })
const prepared = prepareChange(records, change.edits, true)
const imported = performance.now()
const importMemory = process.resourceUsage().maxRSS / 1_000
let files = 0
for (const step of buildSite(records, collection, [])) files += step.files.length
const published = performance.now()
console.log(
  JSON.stringify({
    ok: prepared.ok,
    topics: [...records.all('topic')].length,
    importMs: imported - start,
    importMemory,
    publishMs: published - imported,
    files,
  }),
)
