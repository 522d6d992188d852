import { existsSync, readdirSync } from 'node:fs'
import { mkdir, writeFile } from 'node:fs/promises'
import { dirname, join, resolve, sep } from 'node:path'
import type { MapId } from '../core/records/ids'
import { Records } from '../core/records/records'
import { buildSite } from '../site/site'
import { checkCollection } from './check'
import { createCollection, wholeCollection } from './collections'
import { readArguments } from './command-arguments'
import { unlimited } from './commit/commit-changes'
import { type ComparedPair, compareMaps } from './compare-maps'
import { closeDatabase, database, transaction } from './database'
import { loadDemo } from './demo'
import { readContent } from './files/contents'
import { exchange } from './folders/exchange'
import { exportCollection } from './folders/export-collection'
import { openSource } from './folders/folder-source'
import { importCollection, isCollectionFolder } from './folders/import-collection'
import { importPageFolder } from './folders/import-pages'
import { type HeldMap, mapOfFile } from './page-file'
import { personByAddress } from './people/people'
import { siteAssets } from './publications/assets'
import { loadInto } from './records/tables'
import { gatheredForSite } from './search/gather'
import { type PageSplit, splitFile } from './split-file'

const USAGE = `Usage:
  folvet import PATH [--title TITLE] [--owner ADDRESS]   a folder or zip becomes a new collection: one that was exported
                                                         as it was, any other a map a page
  folvet export [--collection ID|TITLE] --out DIR|ZIP    writes a collection as a folder of open formats, or a zip of it
  folvet publish [--collection ID|TITLE] --out DIR       writes the site of a collection
  folvet check [--collection ID|TITLE]                   prints broken links, unreachable maps, missing files as JSON
  folvet split FILE [--json]                             prints how an indented text or a CommonMark page would be split into
                                                         maps that can be read; changes nothing
  folvet compare A B [--json]                            prints which topics of two such files, or of two maps by title
                                                         or ID, are the same or likely so; changes nothing
  folvet demo                                            loads the demo collection once
`

/** Jobs that work on files, as far as there are such files. */
const ON_FILES: readonly string[] = ['split', 'compare']

/** Whether a job needs the database. */
export function needsDatabase(args: readonly string[]): boolean {
  const asked = readArguments(args)
  if ('problem' in asked || asked.values.help) return false
  const [job, ...paths] = asked.positionals
  return job !== undefined && !(ON_FILES.includes(job) && paths.every((path) => existsSync(path)))
}

/** Runs one job; returns the exit code. What is asked for goes to standard output, trouble to standard error. */
export async function runCommandLine(args: readonly string[]): Promise<number> {
  const asked = readArguments(args)
  if ('problem' in asked) {
    process.stderr.write(`${asked.problem}\n\n`)
    return usage()
  }
  const { values, positionals } = asked
  if (values.help) {
    process.stdout.write(USAGE)
    return 0
  }
  const [job, path, other] = positionals
  try {
    switch (job) {
      case 'import':
        return path ? await importJob(path, values.title, values.owner) : usage()
      case 'export':
        return values.out ? print(await exportCollection((await chosen(values.collection)).id, values.out)) : usage()
      case 'publish':
        return values.out ? await publishJob(values.collection, values.out) : usage()
      case 'check':
        return print(await checkCollection((await chosen(values.collection)).id))
      case 'split':
        return path ? printSplit(splitFile(resolve(path)), values.json) : usage()
      case 'compare':
        return path && other ? printPairs(await compareJob(path, other), values.json) : usage()
      case 'demo':
        await loadDemo()
        return 0
      default:
        return usage()
    }
  } catch (error) {
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
    return 1
  } finally {
    await closeDatabase()
  }
}

function usage(): number {
  process.stderr.write(USAGE)
  return 2
}

function print(value: unknown): number {
  process.stdout.write(`${JSON.stringify(value, null, 2)}\n`)
  return 0
}

/** As JSON on one line, or as people read it. */
function printSplit(split: PageSplit, json: boolean): number {
  const lines = split.pieces.map(
    ({ name, topics, fittedPx }) =>
      `${String(topics).padStart(5)} topics ${fittedPx.toFixed(1).padStart(6)} px   ${name}`,
  )
  const said = `${lines.join('\n')}\n${split.cut} links from map to map`
  process.stdout.write(`${json ? JSON.stringify(split) : said}\n`)
  return 0
}

async function compareJob(first: string, second: string): Promise<ComparedPair[]> {
  const [a, b] = [await mapNamed(first), await mapNamed(second)]
  return compareMaps(a, b)
}

/** A file as the map that it would become; else a map in the database by its title or id. */
async function mapNamed(name: string): Promise<HeldMap> {
  if (existsSync(name)) return mapOfFile(resolve(name))
  const { rows } = await database().query<{ id: MapId; collection: string }>(
    'SELECT id, collection FROM map WHERE NOT trashed AND (id::text = $1 OR title = $1)',
    [name],
  )
  const [map] = rows
  if (!map) throw new Error(`${name} is neither a file nor a map.`)
  if (rows.length > 1) throw new Error(`Several maps are called ${name}. Name one by its ID.`)
  const records = new Records()
  await transaction((client) => loadInto(records, client, 'map', map.collection, 'AND id = $2', [map.id]))
  await transaction((client) => loadInto(records, client, 'topic', map.collection, 'AND map = $2', [map.id]))
  return { records, map: map.id }
}

/** One pair a line: as JSON, or as people read it. */
function printPairs(pairs: readonly ComparedPair[], json: boolean): number {
  for (const pair of pairs) {
    const { a, b, class: found, sure, why } = pair
    const said = `${found.padEnd(6)} ${sure.toFixed(2)}  ${a.join(' › ')}  =  ${b.join(' › ')}   (${why})`
    process.stdout.write(`${json ? JSON.stringify(pair) : said}\n`)
  }
  return 0
}

async function importJob(path: string, title: string | undefined, owner: string | undefined): Promise<number> {
  const person = owner ? await personByAddress(owner) : await firstPerson()
  if (!person)
    throw new Error(owner ? `Nobody has the address ${owner}.` : 'There is no person yet who could own the collection.')
  const source = await openSource(resolve(path))
  try {
    if (isCollectionFolder(source)) return print(await importCollection(source, unlimited(person), title ?? null))
    const name = title ?? fileStem(resolve(path))
    const collection = await transaction((client) => createCollection(client, person.id, name))
    try {
      return print({ collection, ...(await importPageFolder(collection, unlimited(person), source)) })
    } catch (error) {
      await database().query('DELETE FROM collection WHERE id = $1', [collection])
      throw error
    }
  } finally {
    source.close()
  }
}

const fileStem = (path: string): string =>
  path
    .split(sep)
    .at(-1)!
    .replace(/\.[^.]*$/, '')

async function firstPerson() {
  const { rows } = await database().query<{ id: string; name: string }>(
    'SELECT id, name FROM person WHERE address IS NOT NULL ORDER BY created_at LIMIT 1',
  )
  return rows[0] ?? null
}

async function chosen(name: string | undefined): Promise<{ id: string; title: string }> {
  const { rows } = await database().query<{ id: string; title: string }>(
    'SELECT id, title FROM collection WHERE NOT trashed AND ($1::text IS NULL OR id::text = $1 OR title = $1) ORDER BY id',
    [name ?? null],
  )
  if (rows.length === 0) throw new Error(name ? `There is no collection ${name}.` : 'There is no collection.')
  if (rows.length > 1)
    throw new Error(
      `Which collection? Name one with --collection:\n${rows.map((row) => `  ${row.id}  ${row.title}`).join('\n')}`,
    )
  return rows[0]!
}

async function publishJob(collection: string | undefined, out: string): Promise<number> {
  const { id } = await chosen(collection)
  const { records } = await wholeCollection(id)
  const gathered = await gatheredForSite(id, null, new Date().toISOString().slice(0, 10))
  const target = resolve(out)
  if (existsSync(target) && readdirSync(target).length > 0 && !existsSync(join(target, 'assets', 'reader.js')))
    throw new Error(`${target} holds something else than a site. Give an empty folder, or one with a site to replace.`)
  let count = 0
  await exchange(target, async (unfinished) => {
    await mkdir(unfinished)
    for (const { files } of buildSite(records, id, siteAssets(), null, gathered))
      for (const file of files) {
        const path = join(unfinished, ...file.path.split('/'))
        await mkdir(dirname(path), { recursive: true })
        await writeFile(path, 'file' in file ? readContent(file.file.sha256, 0, file.file.size - 1) : file.content)
        count++
      }
  })
  return print({ out: target, files: count })
}
