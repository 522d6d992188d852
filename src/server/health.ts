import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { database } from './database'
import { projectRoot } from './project-root'

const version = String(JSON.parse(readFileSync(join(projectRoot(), 'package.json'), 'utf8')).version)

export async function health(): Promise<{ ok: boolean; database: 'ok' | 'away'; version: string }> {
  const ok = await database()
    .query('SELECT 1')
    .then(
      () => true,
      () => false,
    )
  return { ok, database: ok ? 'ok' : 'away', version }
}
