import { execFile } from 'node:child_process'
import {
  createWriteStream,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join, relative } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { setTimeout } from 'node:timers/promises'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import yazl from 'yazl'
import { openSource } from '../../src/server/folders/folder-source'

const ROOT = join(import.meta.dirname, '../..')
const DEMO = join(ROOT, 'demo/vennmoor')
let folder = ''
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'folvet-folders-'))
  // Somebody who can own what is imported.
  expect((await folvet('demo')).code).toBe(0)
}, 60_000)
afterAll(() => rmSync(folder, { recursive: true, force: true }))

function folvet(...args: string[]): Promise<{ code: number; output: string; trouble: string }> {
  return new Promise((resolve) => {
    const env = { ...process.env, DATABASE_URL: inject('databaseUrl') }
    execFile(process.execPath, [join(ROOT, 'bin/folvet.mjs'), ...args], { env }, (error, output, trouble) =>
      resolve({ code: error ? Number(error.code) : 0, output, trouble }),
    )
  })
}

const filesBelow = (path: string): string[] =>
  readdirSync(path).flatMap((name) =>
    statSync(join(path, name)).isDirectory() ? filesBelow(join(path, name)) : [join(path, name)],
  )
const bytesOf = (path: string) =>
  Object.fromEntries(filesBelow(path).map((file) => [relative(path, file), readFileSync(file).toString('base64')]))

const imported = async (path: string, title: string) => {
  const { code, output, trouble } = await folvet('import', path, '--title', title)
  expect(code, trouble).toBe(0)
  return JSON.parse(output) as { collection: string; maps: number; topics: number; files: number }
}

/** The same but for the ids and titles of the collection, which are new when it is there twice. */
const sameButForTitle = (files: Record<string, string>) => {
  const { 'collection.json': index = '', ...rest } = files
  const { collection, ...others } = JSON.parse(Buffer.from(index, 'base64').toString()) as {
    collection: Record<string, unknown>
  }
  return { rest, others, homeMap: collection.homeMap, look: collection.look }
}

describe('a collection', () => {
  test('leaves as a folder and comes back as it was, file bytes included, also as a zip', async () => {
    const first = await imported(DEMO, 'Vennmoor once')
    expect(first).toMatchObject({ maps: 14, files: 8 })
    const out = join(folder, 'once')
    expect((await folvet('export', '--collection', first.collection, '--out', out)).code).toBe(0)
    expect(sameButForTitle(bytesOf(out))).toEqual(sameButForTitle(bytesOf(DEMO)))

    const zip = join(folder, 'once.zip')
    expect((await folvet('export', '--collection', first.collection, '--out', zip)).code).toBe(0)
    const second = await imported(zip, 'Vennmoor twice')
    expect(second.collection).not.toBe(first.collection)
    const again = join(folder, 'twice')
    await folvet('export', '--collection', second.collection, '--out', again)
    expect(sameButForTitle(bytesOf(again))).toEqual(sameButForTitle(bytesOf(DEMO)))
    const checked = await folvet('check', '--collection', second.collection)
    // The notes of the readers hang on nothing: they wait to be merged.
    expect(JSON.parse(checked.output)).toMatchObject({
      brokenLinks: [],
      unreachableMaps: [{ title: 'Notes on dipwells from the readers' }],
      missingFiles: [],
    })
  }, 120_000)

  test('is not written over something else', async () => {
    const precious = join(folder, 'precious')
    mkdirSync(precious)
    writeFileSync(join(precious, 'letter.txt'), 'Dear')
    const refused = await folvet('export', '--collection', 'Vennmoor once', '--out', precious)
    expect(refused.code).toBe(1)
    expect(refused.trouble).toContain('There is something at')
    expect(readdirSync(precious)).toEqual(['letter.txt'])
  })
})

describe('a folder or zip that is hostile or broken', () => {
  const demo = () => Object.fromEntries(filesBelow(DEMO).map((file) => [relative(DEMO, file), readFileSync(file)]))
  async function zipped(
    name: string,
    files: Record<string, Buffer>,
    spoil = (bytes: Buffer) => bytes,
  ): Promise<string> {
    const zip = new yazl.ZipFile()
    for (const [path, bytes] of Object.entries(files)) zip.addBuffer(bytes, path)
    zip.end()
    const path = join(folder, name)
    await pipeline(zip.outputStream, createWriteStream(path))
    writeFileSync(path, spoil(readFileSync(path)))
    return path
  }
  /** Changes bytes without changing their number. */
  const replaced = (from: string, to: string) => (bytes: Buffer) =>
    Buffer.from(bytes.toString('latin1').replaceAll(from, to), 'latin1')
  /** Three million bytes that are said to be sixteen. */
  const lyingAboutSize = replaced('\xc0\xc6\x2d\x00', '\x10\x00\x00\x00')

  test('tells who reads it what is wrong, however late that is', async () => {
    const source = await openSource(await zipped('late.zip', { 'late.bin': Buffer.alloc(3_000_000) }, lyingAboutSize))
    const bytes = source.bytes('late.bin')[Symbol.asyncIterator]()
    await setTimeout(50)
    await expect(bytes.next()).rejects.toThrow('too many bytes')
    source.close()
  })

  test.each([
    [
      'names that lead out of it',
      () => zipped('out.zip', { 'xx/xx/evil.md': Buffer.from('# x') }, replaced('xx/xx', '../..')),
      'invalid relative path',
    ],
    [
      'absolute names',
      () => zipped('absolute.zip', { 'xetc/evil.md': Buffer.from('# x') }, replaced('xetc', '/etc')),
      'absolute path',
    ],
    [
      'a bomb that lies about its size',
      () => zipped('bomb.zip', { ...demo(), 'files/season-2026.ics': Buffer.alloc(3_000_000) }, lyingAboutSize),
      'too many bytes',
    ],
    [
      'bytes that are no zip',
      async () => {
        const path = join(folder, 'no.zip')
        writeFileSync(path, 'not a zip at all')
        return path
      },
      'This zip cannot be read',
    ],
    [
      'a zip that was cut off',
      () => zipped('cut.zip', demo(), (bytes) => bytes.subarray(0, bytes.length / 2)),
      'This zip cannot be read',
    ],
    [
      'a file that is missing',
      () => {
        const { 'files/season-2026.ics': _, ...rest } = demo()
        return zipped('missing.zip', rest as Record<string, Buffer>)
      },
      'files/season-2026.ics is missing',
    ],
    [
      'two topics of one id',
      () => {
        const files = demo()
        const path = 'maps/09-peat.json'
        const text = files[path]!.toString()
        const ids = [...text.matchAll(/"id": "([0-9a-f-]{36})",\s+"level"/g)].map(([, id]) => id!)
        return zipped('twice.zip', { ...files, [path]: Buffer.from(text.replace(ids[2]!, ids[1]!)) })
      },
      'a second time',
    ],
    [
      'a reference to nowhere',
      () => {
        const files = demo()
        const path = 'collection.json'
        const text = files[path]!.toString().replace(
          /("homeMap": ")[0-9a-f-]{36}/,
          '$100000000-0000-7000-8000-00000000dead',
        )
        return zipped('nowhere.zip', { ...files, [path]: Buffer.from(text) })
      },
      'no longer there',
    ],
  ] as [string, () => Promise<string>, string][])(
    'with %s is refused in words, and nothing is made',
    async (_, make, words) => {
      const { code, trouble } = await folvet('import', await make(), '--title', 'Hostile')
      expect(code).toBe(1)
      expect(trouble).toContain(words)
      expect(trouble).not.toMatch(/\n\s+at /)
      expect((await folvet('check', '--collection', 'Hostile')).trouble).toContain('There is no collection Hostile')
    },
    60_000,
  )
})
