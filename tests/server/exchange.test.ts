import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { exchange } from '../../src/server/folders/exchange'

let folder = ''
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'folvet-exchange-'))
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))

const write = (name: string) => async (unfinished: string) => {
  mkdirSync(unfinished)
  writeFileSync(join(unfinished, 'index.html'), 'new')
  writeFileSync(join(unfinished, name), 'a page')
}

test('a folder is put in place of the one before in one go', async () => {
  const site = join(folder, 'site')
  mkdirSync(site)
  writeFileSync(join(site, 'old.html'), 'old')
  await exchange(site, write('a.html'))
  expect(readdirSync(site).sort()).toEqual(['a.html', 'index.html'])
  expect(readdirSync(folder)).toEqual(['site'])
})

test('where something in it cannot be written, what stood there still does, and nothing else', async () => {
  const site = join(folder, 'site')
  mkdirSync(site)
  writeFileSync(join(site, 'old.html'), 'old')
  // Longer in UTF-8 than a name may be.
  await expect(exchange(site, write(`${'泥'.repeat(100)}.html`))).rejects.toThrow(/ENAMETOOLONG/)
  expect(readFileSync(join(site, 'old.html'), 'utf8')).toBe('old')
  expect(readdirSync(folder)).toEqual(['site'])
})
