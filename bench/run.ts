import { measureBegin } from './begin'
import { measureBundle, measureReader } from './bundle'
import { measureChangeRate } from './change-rate'
import { measureCopy, measureImport } from './import'
import { layoutBenches } from './layout'
import { measureLive } from './live'
import { measureManyMaps } from './many-maps'
import type { Measurement } from './measure'
import { measureMemory } from './memory'
import { measureMatching, measureMentions, measureQuality, measureSplit } from './network'
import { measureSearch } from './search'
import { measureStage } from './stage'
import { measureTextSync } from './text-sync'

const asJson = process.argv.includes('--json')
const only = process.argv.find((argument) => argument.startsWith('--only='))?.slice('--only='.length)

type Bench = () => Promise<Measurement | Measurement[]> | Measurement | Measurement[]
/** Each bench with the rows that it prints. */
const benches: { rows: readonly string[]; run: Bench }[] = [
  ...Object.entries(layoutBenches).map(([name, run]) => ({ rows: [name], run })),
  { rows: ['text-sync-2k'], run: measureTextSync },
  { rows: ['split-10k'], run: measureSplit },
  { rows: ['mentions-50k'], run: measureMentions },
  { rows: ['merge-5k'], run: measureMatching },
  {
    rows: ['match-same-precision', 'match-same-recall', 'match-either-precision', 'match-either-recall'],
    run: measureQuality,
  },
  { rows: ['import-54k', 'publish-54k'], run: measureImport },
  { rows: ['copy-branch-5k'], run: measureCopy },
  { rows: ['search-100k'], run: measureSearch },
  { rows: ['change-rate'], run: measureChangeRate },
  { rows: ['open-in-1k', 'digest-after-change', 'atlas-1k', 'atlas-pan-1k', 'standstill-1k'], run: measureManyMaps },
  { rows: ['live-lag', 'key-to-paint-20'], run: measureLive },
  { rows: ['memory', 'memory-published'], run: measureMemory },
  { rows: ['open-5k', 'key-to-paint-5k', 'stage-pan-10k'], run: measureStage },
  { rows: ['begin', 'make-the-map'], run: measureBegin },
  { rows: ['bundle'], run: measureBundle },
  { rows: ['bundle-site'], run: measureReader },
]
const known = benches.flatMap(({ rows }) => rows)
if (only && !known.includes(only)) {
  console.error(`There is no row ${only}. There are: ${known.join(', ')}.`)
  process.exit(2)
}

const number = (value: number) => (value >= 100 ? value.toFixed(0) : value.toPrecision(3))

function inWords({ name, value, unit, peer, peerValue, ratio, limit, ok, note }: Measurement): string {
  const against =
    peer && peerValue !== null && ratio !== null ? `, ${peer} ${number(peerValue)} ${unit}, ratio ${number(ratio)}` : ''
  const bound = limit === null ? '' : `, limit ${number(limit)}`
  return `${ok ? 'ok    ' : 'missed'} ${name.padEnd(19)} ${number(value)} ${unit}${against}${bound}${note ? ` (${note})` : ''}`
}

let layout10k: number | null = null
for (const { rows, run } of benches) {
  if (only && !rows.includes(only)) continue
  for (let result of [await run()].flat()) {
    if (result.name === 'layout-10k') layout10k = result.value
    if (result.name === 'layout-100k' && layout10k !== null) {
      const times = result.value / layout10k
      result = {
        ...result,
        ok: result.ok && times <= 13,
        note: `${result.note}; ${times.toFixed(1)} × layout-10k, limit 13`,
      }
    }
    console.log(asJson ? JSON.stringify(result) : inWords(result))
  }
}
