import { execFile } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, relative } from 'node:path'
import { afterAll, beforeAll, expect, inject, test } from 'vitest'

const COMMAND = join(import.meta.dirname, '../../bin/folvet.mjs')
let folder = ''
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'folvet-cli-'))
  mkdirSync(join(folder, 'pages/files'), { recursive: true })
  writeFileSync(
    join(folder, 'pages/1-garden.md'),
    '# Garden\n\nAll of it.\n\n- [Spring](2-spring.md)\n- See [peas](2-spring.md#sow-peas)\n- [Plan](files/plan.csv)\n- [Lost](nowhere.md)\n',
  )
  writeFileSync(join(folder, 'pages/2-spring.md'), '# Spring\n\n- Sow peas\n- [Back](1-garden.md)\n')
  writeFileSync(join(folder, 'pages/files/plan.csv'), 'bed,length\nnorth,4\n')
  // Somebody who can own what is imported.
  expect((await folvet('demo')).code).toBe(0)
}, 60_000)
afterAll(() => rmSync(folder, { recursive: true, force: true }))

function folvet(...args: string[]): Promise<{ code: number; output: string; trouble: string }> {
  return new Promise((resolve) => {
    const env = { ...process.env, DATABASE_URL: inject('databaseUrl') }
    execFile(process.execPath, [COMMAND, ...args], { env }, (error, output, trouble) =>
      resolve({ code: error ? Number(error.code) : 0, output, trouble }),
    )
  })
}

const filesBelow = (path: string): string[] =>
  readdirSync(path)
    .flatMap((name) => (statSync(join(path, name)).isDirectory() ? filesBelow(join(path, name)) : [join(path, name)]))
    .sort()

/** Everything in a folder, by path and content. */
const contentsOf = (path: string) =>
  Object.fromEntries(filesBelow(path).map((file) => [relative(path, file), readFileSync(file).toString('base64')]))

test('a folder is imported, checked and published without a browser', async () => {
  const imported = await folvet('import', join(folder, 'pages'), '--title', 'Garden of the command line')
  expect(imported.code, imported.trouble).toBe(0)
  expect(JSON.parse(imported.output)).toMatchObject({
    maps: 2,
    files: 1,
    unread: [{ page: '1-garden.md', address: 'nowhere.md' }],
  })
  const checked = await folvet('check', '--collection', 'Garden of the command line')
  expect(JSON.parse(checked.output)).toEqual({ brokenLinks: [], unreachableMaps: [], missingFiles: [] })

  const out = join(folder, 'site')
  const published = await folvet('publish', '--collection', 'Garden of the command line', '--out', out)
  expect(published.code, published.trouble).toBe(0)
  expect(JSON.parse(published.output).files).toBe(filesBelow(out).length)
  expect(existsSync(join(out, 'maps/spring.html'))).toBe(true)
  const garden = readFileSync(join(out, 'maps/garden.html'), 'utf8')
  expect(garden).toContain('href="../maps/spring.html"')
  expect(garden).toMatch(/href="\.\.\/maps\/spring\.html#t-[0-9a-f]{12}"/)
  const file = /href="\.\.\/(files\/[^"]+plan\.csv)"/.exec(garden)?.[1] ?? ''
  expect(readFileSync(join(out, file), 'utf8')).toBe('bed,length\nnorth,4\n')

  const again = join(folder, 'again')
  await folvet('publish', '--collection', 'Garden of the command line', '--out', again)
  expect(contentsOf(again)).toEqual(contentsOf(out))
}, 60_000)

test('a folder that holds something else is not written over, and wrong calls are answered with the usage', async () => {
  const precious = join(folder, 'precious')
  mkdirSync(precious)
  writeFileSync(join(precious, 'letter.txt'), 'Dear')
  const refused = await folvet('publish', '--collection', 'Garden of the command line', '--out', precious)
  expect(refused.code).toBe(1)
  expect(refused.trouble).toContain('holds something else than a site')
  expect(readFileSync(join(precious, 'letter.txt'), 'utf8')).toBe('Dear')
  expect((await folvet('sing')).code).toBe(2)
  expect((await folvet('publish')).trouble).toContain('Usage:')
  expect((await folvet('import', join(folder, 'nothing-here'))).code).toBe(1)
  expect((await folvet('check', '--collection', 'No such collection')).code).toBe(1)
}, 60_000)

test('what is asked wrongly is told in words, with what may have been meant, and help is no mistake', async () => {
  const asked = await Promise.all([
    folvet('--help'),
    folvet('publish', '-h'),
    folvet('publish', '--outt', folder),
    folvet('publsh', '--out', folder),
    folvet('check', '--collection'),
  ])
  expect(asked.map(({ code }) => code)).toEqual([0, 0, 2, 2, 2])
  expect(asked.slice(0, 2).every(({ output }) => output.startsWith('Usage:'))).toBe(true)
  expect(asked[2]!.trouble).toMatch(/^There is no option --outt\. Did you mean --out\?/)
  expect(asked[3]!.trouble).toMatch(/^There is no job publsh\. Did you mean publish\?/)
  expect(asked[4]!.trouble).toMatch(/^The option --collection /)
  for (const { trouble } of asked) expect(trouble).not.toMatch(/\n\s+at /)
}, 60_000)

test('two files are compared and one is split without a database, and nothing is changed', async () => {
  const [a, b, list] = ['a.txt', 'b.md', 'list.txt'].map((name) => join(folder, name)) as [string, string, string]
  writeFileSync(a, 'Trip\n  Costs\n    Hotel\n    Train tickets\n')
  writeFileSync(b, '# Our trip\n\n- Expenses\n  - Hotels\n  - Tickets for the train\n  - Museum\n')
  writeFileSync(list, `Plants\n${Array.from({ length: 150 }, (_, i) => `  Plant ${i + 1}`).join('\n')}\n`)
  const [compared, split, missing, few, unknown] = await Promise.all([
    folvet('compare', a, b, '--json'),
    folvet('split', list, '--json'),
    folvet('split', join(folder, 'nowhere.md')),
    folvet('compare', a),
    folvet('compare', a, 'No such map'),
  ])
  expect(compared.code).toBe(0)
  const pairs = compared.output
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line))
  expect(pairs.map(({ a, b }) => [a.at(-1), b.at(-1)])).toEqual([
    ['Trip', 'Our trip'],
    ['Costs', 'Expenses'],
    ['Hotel', 'Hotels'],
    ['Train tickets', 'Tickets for the train'],
  ])
  expect(pairs[2]).toMatchObject({
    a: ['Trip', 'Costs', 'Hotel'],
    b: ['Our trip', 'Expenses', 'Hotels'],
    class: 'same',
  })
  expect(pairs[1].why).toContain('costs ≈ expenses')
  for (const { sure } of pairs) expect(sure).toBeGreaterThan(0.5)

  const { pieces, cut } = JSON.parse(split.output)
  expect(cut).toBe(0)
  expect(pieces[0]).toMatchObject({ root: ['Plants'], name: 'Plants' })
  expect(pieces[1].root).toEqual(['Plants', 'Plant 1'])
  for (const { topics, fittedPx } of pieces) {
    expect(topics).toBeLessThanOrEqual(60)
    expect(fittedPx).toBeGreaterThanOrEqual(9)
  }
  expect(missing).toMatchObject({ code: 1 })
  expect(missing.trouble).toContain('is no file that can be read')
  expect(few.code).toBe(2)
  expect(unknown.trouble).toContain('neither a file nor a map')
}, 60_000)
