import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/**
 * The parts of the interface have names that tell their content. A window that stands open while a new version is started goes on
 * asking for those of the version before: they stay beside the new ones, until the version after.
 */
const folderOf = (dist) => join(dist, 'client', '_astro')
const listOf = (dist) => join(dist, 'parts.json')

/** The names of the parts of the version that is built, without those of the one before. */
export const namesOfParts = (dist) => (existsSync(listOf(dist)) ? JSON.parse(readFileSync(listOf(dist), 'utf8')) : [])

/** The parts of the version that is built, by name; to be taken before another build empties the folder. */
export function takeParts(dist) {
  const found = namesOfParts(dist).filter((name) => existsSync(join(folderOf(dist), name)))
  return new Map(found.map((name) => [name, readFileSync(join(folderOf(dist), name))]))
}

/** Writes down which parts a fresh build has, and lays those of the version before beside them. */
export function addPartsBefore(dist, before) {
  const names = readdirSync(folderOf(dist))
  writeFileSync(listOf(dist), JSON.stringify(names))
  for (const [name, content] of before) if (!names.includes(name)) writeFileSync(join(folderOf(dist), name), content)
}
