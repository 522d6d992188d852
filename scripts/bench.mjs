import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { ensurePackages, root } from './setup/dependencies.mjs'
import { main } from './setup/say.mjs'

/** Measures what docs/architecture.md promises, each with its peer in the same run. `-- --json` prints one object a line. */
await main(async () => {
  await ensurePackages()
  const { ensureBuilt } = await import('./setup/build.mjs')
  await ensureBuilt()
  const bench = spawn(process.execPath, ['--import', 'tsx', join(root, 'bench', 'run.ts'), ...process.argv.slice(2)], {
    stdio: 'inherit',
    cwd: root,
  })
  process.exitCode = await new Promise((resolve) => bench.on('close', resolve))
})
