/**
 * Writes the classes of all hues to src/core/scene/families.generated.css. `--check` fails when the file is not what
 * `core/look/families.ts` says.
 */
import { readFileSync, writeFileSync } from 'node:fs'
import { familyStyles } from '../src/core/look/families'

const target = new URL('../src/core/scene/families.generated.css', import.meta.url)
const css = `/* Made by scripts/build-families.ts from core/look/families.ts. */\n${familyStyles()}`

if (process.argv.includes('--check')) {
  if (readFileSync(target, 'utf8') !== css) {
    console.error('The hues do not match their families. Run npm run families.')
    process.exit(1)
  }
} else writeFileSync(target, css)
