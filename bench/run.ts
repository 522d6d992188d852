import { measureBundle, measureReader } from './bundle'
import { measureChangeRate } from './change-rate'
import { measureCopy, measureImport } from './import'
import { layoutBenches } from './layout'
import type { Measurement } from './measure'
import { measureStage } from './stage'
import { measureTextSync } from './text-sync'

const asJson = process.argv.includes('--json')
const only = process.argv.find((argument) => argument.startsWith('--only='))?.slice('--only='.length)

type Bench = () => Promise<Measurement | Measurement[]> | Measurement | Measurement[]
const benches: Record<string, Bench> = {
  ...layoutBenches,
  'text-sync-2k': measureTextSync,
  'import-54k': measureImport,
  'copy-branch-5k': measureCopy,
  'change-rate': measureChangeRate,
  stage: measureStage,
  bundle: measureBundle,
  'bundle-site': measureReader,
}

const number = (value: number) => (value >= 100 ? value.toFixed(0) : value.toPrecision(3))

function inWords({ name, value, unit, peer, peerValue, ratio, limit, ok, note }: Measurement): string {
  const against =
    peer && peerValue !== null && ratio !== null ? `, ${peer} ${number(peerValue)} ${unit}, ratio ${number(ratio)}` : ''
  const bound = limit === null ? '' : `, limit ${number(limit)}`
  return `${ok ? 'ok    ' : 'missed'} ${name.padEnd(14)} ${number(value)} ${unit}${against}${bound}${note ? ` (${note})` : ''}`
}

let layout10k: number | null = null
for (const [name, bench] of Object.entries(benches)) {
  if (only && only !== name) continue
  for (let result of [await bench()].flat()) {
    if (name === 'layout-10k') layout10k = result.value
    if (name === 'layout-100k' && layout10k !== null) {
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
