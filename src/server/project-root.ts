import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

/** The folder of Folvet itself: the nearest one upwards from this code that holds its package.json. */
export function projectRoot(): string {
  let folder = dirname(fileURLToPath(import.meta.url))
  while (!isOurs(folder)) {
    const above = dirname(folder)
    if (above === folder) throw new Error('The folder of Folvet was not found.')
    folder = above
  }
  return folder
}

function isOurs(folder: string): boolean {
  const file = join(folder, 'package.json')
  return existsSync(file) && JSON.parse(readFileSync(file, 'utf8')).name === 'folvet'
}
