/**
 * Writes src/core/scene/scene.generated.css: the palette, the classes of all hues, and how drawings are drawn. `--check`
 * fails when the file is not what `core/look` and `core/scene/ink-rules.ts` say.
 */
import { readFileSync, writeFileSync } from 'node:fs'
import { familyStyles } from '../src/core/look/families'
import { paletteStyles } from '../src/core/look/palette'
import { inkStyles } from '../src/core/scene/ink-rules'

const target = new URL('../src/core/scene/scene.generated.css', import.meta.url)
const made = '/* Made by scripts/build-scene-styles.ts from core/look and core/scene/ink-rules.ts. */\n'
const css = `${made}${paletteStyles()}${familyStyles()}${inkStyles()}`

if (process.argv.includes('--check')) {
  if (readFileSync(target, 'utf8') !== css) {
    console.error('The styles of drawings are not what their tables say. Run npm run styles.')
    process.exit(1)
  }
} else writeFileSync(target, css)
