import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { CHROMIUM_LAUNCH } from './chromium.mjs'
import { run } from './run.mjs'
import { say, Trouble } from './say.mjs'

export const root = new URL('../../', import.meta.url).pathname.replace(/\/$/, '')

const isRoot = process.getuid?.() === 0

/** Installs the npm packages of package-lock.json where they are missing or others are there. */
export async function ensurePackages() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19))
    throw new Trouble(`Folvet needs Node 20.19 or newer; this is ${process.version}.`)
  if (packagesMatch()) return
  say('Installing npm packages …')
  const { code, output } = await run('npm', ['ci', '--no-audit', '--no-fund'], { cwd: root })
  if (code !== 0)
    throw new Trouble(
      `The npm packages could not be installed. Is the npm registry reachable?\n${output.trim().split('\n').slice(-8).join('\n')}`,
    )
}

/** npm writes what it installed into node_modules; every package of the lock file must be there in its version. */
function packagesMatch() {
  const installed = join(root, 'node_modules', '.package-lock.json')
  if (!existsSync(installed)) return false
  const wanted = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')).packages
  const found = JSON.parse(readFileSync(installed, 'utf8')).packages
  return Object.entries(wanted).every(
    ([path, { version, optional }]) => path === '' || optional || found[path]?.version === version,
  )
}

let aptUpdated = false

/** Installs a Debian package as root; tells what to do where that is not possible. */
export async function aptInstall(name, what) {
  const hint = `Install it with: apt-get install ${name}`
  if (!isRoot) throw new Trouble(`Folvet needs ${what}, which is not installed, and only root can install it. ${hint}`)
  if ((await run('apt-get', ['--version'])).code !== 0)
    throw new Trouble(
      `Folvet needs ${what}, which is not installed, and there is no apt on this machine. Install ${what} by hand, or set DATABASE_URL.`,
    )
  say(`Installing ${what} …`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  if (!aptUpdated) await run('apt-get', ['update', '-qq'], { env })
  aptUpdated = true
  const { code, output } = await run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', name], { env })
  if (code !== 0)
    throw new Trouble(`${what} could not be installed. ${hint}\n${output.trim().split('\n').slice(-5).join('\n')}`)
}

export async function ensureChromium() {
  if (!existsSync(CHROMIUM_LAUNCH.executablePath)) await aptInstall('chromium-headless-shell', 'Chromium')
}
