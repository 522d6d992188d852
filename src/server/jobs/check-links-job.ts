import pLimit from 'p-limit'
import { database, transaction } from '../database'
import { lookAtPage } from '../outgoing/look-at-page'
import type { JobKind } from './job-kind'
import { finishJob } from './job-rows'

/** Of a collection so many addresses are looked at, of one host so many, one after the other. */
const [MOST, MOST_OF_HOST, HOSTS_AT_ONCE] = [2_000, 100, 8]

/** Looks at every web page that topics of a collection lead to, and keeps what was found. */
export const checkLinksKind: JobKind<null> = {
  async run(job, _, report) {
    const { rows } = await database().query<{ url: string }>(
      `SELECT DISTINCT w.url FROM weblink w JOIN topic t ON t.collection = w.collection AND t.id = w.topic AND NOT t.trashed
       WHERE w.collection = $1 AND NOT w.trashed AND w.url ~* '^https?://' ORDER BY w.url LIMIT ${MOST}`,
      [job.collection],
    )
    const byHost = new Map<string, string[]>()
    for (const { url } of rows) {
      if (!URL.canParse(url)) continue
      const { host } = new URL(url)
      byHost.set(host, [...(byHost.get(host) ?? []), url].slice(0, MOST_OF_HOST))
    }
    const total = [...byHost.values()].reduce((sum, { length }) => sum + length, 0)
    const found: { url: string; trouble: string | null }[] = []
    report(0, total)
    const turns = pLimit(HOSTS_AT_ONCE)
    const lookAt = async (addresses: readonly string[]) => {
      for (const url of addresses) {
        found.push({ url, trouble: await lookAtPage(url) })
        report(found.length, total)
      }
    }
    await Promise.all([...byHost.values()].map((addresses) => turns(lookAt, addresses)))
    await transaction(async (client) => {
      await finishJob(client, job, null)
      await client.query('DELETE FROM web_check WHERE collection = $1', [job.collection])
      await client.query(
        `INSERT INTO web_check (collection, url, trouble)
         SELECT $1, r.url, r.trouble FROM jsonb_to_recordset($2::jsonb) AS r(url text, trouble text)`,
        [job.collection, JSON.stringify(found)],
      )
    })
  },
  // What was found before stands until it is found anew.
  takeBack: async () => {},
  failed: 'The web links could not be looked at. Nothing was changed.',
}
