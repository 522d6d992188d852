/**
 * Takes the icons that can be badges out of the Tabler set (MIT): their outlines go to
 * src/core/badges/icon-paths.generated.json, and the words by which they are found to icon-words.generated.json, which
 * only the picker loads. `--check` fails when a file does not match.
 */
import { readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'

const NAMES = `
  star heart flag bookmark pin bulb flame bolt alert-triangle alert-circle info-circle help-circle circle-check
  circle-x circle-plus circle-minus ban lock lock-open key eye eye-off thumb-up thumb-down mood-smile mood-sad
  question-mark exclamation-mark check x arrow-up arrow-down arrow-left arrow-right arrows-exchange refresh repeat
  clock hourglass calendar calendar-event alarm stopwatch history bell user users user-check friends school
  book books notebook news article file-text files folder archive clipboard-check list-check list-details checklist
  pencil writing highlight eraser ruler scissors paperclip link mail message message-circle phone microphone speakerphone
  camera photo video music palette brush map map-pin compass route world building home building-community tent
  tree trees plant leaf plant-2 flower mushroom feather paw fish butterfly bug droplet ripple
  cloud cloud-rain snowflake sun moon wind temperature mountain tractor shovel bucket hammer tool
  tools settings adjustments plug battery cpu database server code terminal device-laptop
  printer chart-bar chart-line chart-pie trending-up trending-down target trophy award medal
  gift coin cash receipt shopping-cart scale gavel briefcase certificate rosette shield shield-check
  first-aid-kit stethoscope pill vaccine virus microscope flask test-pipe atom dna telescope math puzzle
  car bike bus train plane ship anchor walk run ball-football swimming coffee apple
  bread egg soup bottle recycle trash skull ghost robot rocket wand dice
  number-0 number-1 number-2 number-3 number-4 number-5 number-6 number-7 number-8 number-9
  letter-a letter-b letter-c square circle triangle diamond hexagon zoom-in filter
  language quote abc`
  .trim()
  .split(/\s+/)

interface Meta {
  tags?: (string | number)[]
  category?: string
}

const require = createRequire(import.meta.url)
/** The data of the icon set come with the components that the interface uses. */
const components = dirname(dirname(dirname(require.resolve('@tabler/icons-react'))))
const folder = join(components, '..', 'icons')
const nodes = JSON.parse(readFileSync(join(folder, 'tabler-nodes-outline.json'), 'utf8')) as Record<
  string,
  [string, Record<string, string>][]
>
const metas = JSON.parse(readFileSync(join(folder, 'icons.json'), 'utf8')) as Record<string, Meta>

const paths: Record<string, string> = {}
const found: Record<string, string> = {}
for (const name of NAMES) {
  const parts = nodes[name]
  if (!parts || parts.some(([tag]) => tag !== 'path')) continue
  const { tags = [], category = '' } = metas[name] ?? {}
  const words = [...new Set([name.replaceAll('-', ' '), category, ...tags].map((word) => String(word).toLowerCase()))]
  paths[name] = parts.map(([, { d }]) => d).join('')
  found[name] = words.join(' ')
}

for (const [name, content] of [
  ['icon-paths', paths],
  ['icon-words', found],
] as const) {
  const target = new URL(`../src/core/badges/${name}.generated.json`, import.meta.url)
  const json = `${JSON.stringify(content, null, 1)}\n`
  if (!process.argv.includes('--check')) writeFileSync(target, json)
  else if (readFileSync(target, 'utf8') !== json) {
    console.error('The badges do not match the icon set. Run npm run badges.')
    process.exit(1)
  }
}
