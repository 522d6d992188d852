import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureChromium, ensurePackages, root } from './setup/dependencies.mjs'
import { run } from './setup/run.mjs'
import { main, say } from './setup/say.mjs'

const env = { ...process.env, ASTRO_TELEMETRY_DISABLED: '1', FORCE_COLOR: '0' }
const counted = { passed: 0, failed: [] }

/** A check that passes or fails as a whole. */
async function check(name, program, args) {
  const start = Date.now()
  const { code, output } = await run(program, args, { cwd: root, env })
  if (code === 0) counted.passed++
  else counted.failed.push(name)
  say(`${code === 0 ? 'ok    ' : 'FAILED'} ${name} (${((Date.now() - start) / 1000).toFixed(0)} s)`)
  if (code !== 0) say(output)
  return code === 0
}

/** A suite that reports how many of its tests passed; a suite that reports nothing has failed. */
async function suite(name, args, report, read) {
  say(`\n── ${name}`)
  const { code } = await run('npx', ['--no-install', ...args], {
    cwd: root,
    env: { ...env, FOLVET_REPORT: report },
    show: true,
  })
  let result = { passed: 0, failed: [] }
  try {
    result = read(JSON.parse(readFileSync(report, 'utf8')))
  } catch {
    say(`${name} wrote no report.`)
  }
  if (result.failed.length === 0 && (code !== 0 || result.passed === 0)) result.failed.push(`${name} as a whole`)
  counted.passed += result.passed
  counted.failed.push(...result.failed)
}

/** A test that failed, by name and with the beginning of what it says. */
const failure = (name, message) => `${name}\n    ${(message ?? '').split('\n').slice(0, 12).join('\n    ')}`

const fromVitest = ({ numPassedTests, testResults }) => ({
  passed: numPassedTests,
  failed: testResults.flatMap((file) =>
    file.status === 'failed' && file.assertionResults.length === 0
      ? [failure(file.name, file.message)]
      : file.assertionResults
          .filter(({ status }) => status === 'failed')
          .map(({ fullName, failureMessages }) => failure(fullName, failureMessages[0])),
  ),
})

/** Whatever was not passed at the first try counts as failed, also what was skipped. */
function fromPlaywright({ stats, suites }) {
  const failed = []
  const walk = ({ suites = [], specs = [] }) => {
    for (const spec of specs)
      for (const { status, results } of spec.tests)
        if (status !== 'expected') failed.push(failure(spec.title, results[0]?.error?.message))
    suites.forEach(walk)
  }
  suites.forEach(walk)
  return { passed: stats.expected, failed }
}

/** Types, lint, import rules, unit tests, server tests on a real PostgreSQL, browser tests on the built application. */
await main(async () => {
  await ensurePackages()
  await ensureChromium()
  const { ensureBuilt } = await import('./setup/build.mjs')
  const reports = mkdtempSync(join(tmpdir(), 'folvet-reports-'))
  try {
    // The types of all take as long as everything else together: beside them, one after the other.
    const others = async () => {
      await check('types of core', 'npx', ['--no-install', 'tsc', '-p', 'src/core'])
      await check('lint and format', 'npx', ['--no-install', 'biome', 'check', '--error-on-warnings', '.'])
      await check('import rules', 'npx', ['--no-install', 'depcruise', '--config', '.dependency-cruiser.cjs', 'src'])
      await check('nothing unused', 'npx', ['--no-install', 'knip'])
      for (const [what, script] of [
        ['font metrics match the fonts', 'scripts/build-font-metrics.ts'],
        ['styles of drawings match their tables', 'scripts/build-scene-styles.ts'],
        ['badges match the icon set', 'scripts/build-badges.ts'],
      ])
        await check(what, 'npx', ['--no-install', 'tsx', script, '--check'])
    }
    await Promise.all([
      check('types', 'npx', ['--no-install', 'astro', 'check', '--minimumSeverity', 'error']),
      others(),
    ])
    await ensureBuilt()
    for (const project of ['unit', 'server']) {
      const report = join(reports, `${project}.json`)
      await suite(
        `${project} tests`,
        ['vitest', 'run', '--project', project, '--reporter=default', '--reporter=json', `--outputFile.json=${report}`],
        report,
        fromVitest,
      )
    }
    await suite('browser tests', ['playwright', 'test'], join(reports, 'browser.json'), fromPlaywright)
  } finally {
    rmSync(reports, { recursive: true, force: true })
  }
  // Once more at the end, where whoever sees only that finds it.
  for (const name of counted.failed) say(`\nFAILED ${name}`)
  say(`\n${counted.passed} passed, ${counted.failed.length} failed`)
  process.exitCode = counted.failed.length === 0 ? 0 : 1
})
