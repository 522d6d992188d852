import { readFileSync } from 'node:fs'
import { loadDemo } from '../scripts/setup/serve.mjs'
import { page as pageText } from './import'
import { type Measurement, seededRandom } from './measure'
import { importInto, plain, type Served, withServer } from './served'

const MAPS = 1_000

/** What a process holds in memory, in MB. */
const heldBy = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1_000

async function publish({ context, address, collection }: Served): Promise<void> {
  const base = `${address}/api/collections/${collection}`
  const asked = await context.request.post(`${base}/publication`)
  const { job } = (await asked.json()) as { job: { id: string } }
  for (let state = ''; state !== 'done'; ) {
    state = ((await (await context.request.get(`${base}/jobs/${job.id}`)).json()) as { state: string }).state
    if (state === 'failed') throw new Error('Publishing failed.')
    await new Promise((resolve) => setTimeout(resolve, 200))
  }
}

/** What the server holds at rest with the demo, and after it imported and published a thousand maps. */
export const measureMemory = (): Promise<Measurement[]> =>
  withServer(async (served) => {
    await loadDemo(served.databaseUrl)
    await served.context.request.post(`${served.address}/api/demo-session`)
    const rest = plain({
      name: 'memory',
      value: heldBy(served.pid),
      unit: 'MB',
      limit: 250,
      note: 'resident, at rest with the demo',
    })
    const made = await served.context.request.post(`${served.address}/api/collections`, { data: { title: 'Large' } })
    const { collection } = (await made.json()) as { collection: string }
    const random = seededRandom(50)
    const pages = Array.from({ length: MAPS }, (_, i) => ({ path: `p${i}.md`, text: pageText(i, random) }))
    const begun = performance.now()
    await importInto(served.context, served.address, collection, pages)
    const imported = performance.now()
    let most = 0
    const look = setInterval(() => {
      most = Math.max(most, heldBy(served.pid))
    }, 100)
    await publish({ ...served, collection })
    clearInterval(look)
    const published = performance.now()
    const seconds = (ms: number) => (ms / 1_000).toFixed(1)
    return [
      rest,
      plain({
        name: 'memory-published',
        value: heldBy(served.pid),
        unit: 'MB',
        limit: 700,
        note: `resident, after a thousand maps were imported in ${seconds(imported - begun)} s and published in ${seconds(published - imported)} s; at most ${most.toFixed(0)} MB meanwhile`,
      }),
    ]
  })
