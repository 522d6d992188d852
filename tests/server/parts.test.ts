import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, expect, test } from 'vitest'
import { addPartsBefore, namesOfParts, takeParts } from '../../scripts/setup/parts.mjs'

const dist = mkdtempSync(join(tmpdir(), 'folvet-parts-'))
const folder = join(dist, 'client', '_astro')

afterEach(() => rmSync(dist, { recursive: true, force: true }))

/** As a build does it: the folder is emptied and written anew. */
function build(parts: Record<string, string>): void {
  const before = takeParts(dist)
  rmSync(dist, { recursive: true, force: true })
  mkdirSync(folder, { recursive: true })
  for (const [name, content] of Object.entries(parts)) writeFileSync(join(folder, name), content)
  addPartsBefore(dist, before)
}

test('the parts of the version before stay beside the new ones, those of the one before that do not', () => {
  build({ 'Note.a1.js': 'one', 'Map.b1.js': 'same' })
  expect(readdirSync(folder).sort()).toEqual(['Map.b1.js', 'Note.a1.js'])
  build({ 'Note.a2.js': 'two', 'Map.b1.js': 'same' })
  expect(readdirSync(folder).sort()).toEqual(['Map.b1.js', 'Note.a1.js', 'Note.a2.js'])
  expect(readFileSync(join(folder, 'Note.a1.js'), 'utf8')).toBe('one')
  expect(namesOfParts(dist).sort()).toEqual(['Map.b1.js', 'Note.a2.js'])
  build({ 'Note.a3.js': 'three', 'Map.b1.js': 'same' })
  expect(readdirSync(folder).sort()).toEqual(['Map.b1.js', 'Note.a2.js', 'Note.a3.js'])
})
