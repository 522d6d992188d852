import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { root } from './dependencies.mjs'
import { addPartsBefore, takeParts } from './parts.mjs'
import { run } from './run.mjs'
import { say, Trouble } from './say.mjs'

const STAMP = join(root, 'dist', 'built-from')

/** Names, sizes and times of everything that the build reads. */
function fingerprint() {
  const hash = createHash('sha256')
  const visit = (path) => {
    const full = join(root, path)
    if (!existsSync(full)) return
    const stats = statSync(full)
    if (stats.isDirectory()) for (const name of readdirSync(full).sort()) visit(join(path, name))
    else hash.update(`${path}\0${createHash('sha256').update(readFileSync(full)).digest('hex')}\n`)
  }
  for (const path of ['src', 'public', 'astro.config.mjs', 'tsconfig.json', 'package-lock.json']) visit(path)
  return hash.digest('hex')
}

/** Lays a compressed form beside every script and style, for browsers that take it. */
function compress(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name)
    if (entry.isDirectory()) compress(path)
    else if (/\.(js|css|svg)$/.test(entry.name)) writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }))
  }
}

/** Builds the application where the build is missing or older than the sources. */
export async function ensureBuilt() {
  const wanted = fingerprint()
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return
  say('Building Folvet …')
  // Also where a test runner builds, whose own surroundings would ask for the libraries as they are for development.
  const env = {
    ...process.env,
    NODE_ENV: 'production',
    ASTRO_TELEMETRY_DISABLED: '1',
    FOLVET_BUILD: wanted.slice(0, 12),
  }
  const before = takeParts(join(root, 'dist'))
  const { code, output } = await run('npx', ['--no-install', 'astro', 'build'], { cwd: root, env })
  if (code !== 0) throw new Trouble(`Folvet could not be built:\n${output.trim().split('\n').slice(-30).join('\n')}`)
  addPartsBefore(join(root, 'dist'), before)
  compress(join(root, 'dist', 'client'))
  writeFileSync(STAMP, wanted)
}
