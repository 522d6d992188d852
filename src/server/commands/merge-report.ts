import type { MergeReport } from '../../core/commands/merge-maps'
import { mergeReportCsv, mergeReportPage } from '../../core/formats/merge-report'
import { mayRead } from '../../core/rights/grant'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import type { Reply } from '../http/reply'
import { reportOf } from './reports'

/** Other commands report too, and nothing that is kept here. */
const isMergeReport = (value: unknown): value is MergeReport =>
  typeof value === 'object' && value !== null && 'counts' in value && 'rows' in value && 'result' in value

const file = (name: string, type: string, body: string): Reply => ({
  status: 200,
  headers: {
    'Content-Type': `${type}; charset=utf-8`,
    'Content-Disposition': `attachment; filename="${name}"`,
    'Cache-Control': 'no-store',
    'X-Content-Type-Options': 'nosniff',
  },
  body,
})

/**
 * The report of a merge, as data or as a file of the form that is asked for. Whoever may not read one of the maps that were merged
 * is told that there is none.
 */
export async function mergeReportOf({ collection, reach }: Member, change: string, form: string | null) {
  const report = await reportOf(collection, change)
  const isOpen =
    isMergeReport(report) &&
    [report.result, ...report.rows.map(({ from }) => from.id)].every((map) => mayRead(reach, map))
  if (!isOpen) throw new Failure(404, 'There is no such report, or it is not open to you.')
  if (form === 'csv') return file('merge-report.csv', 'text/csv', mergeReportCsv(report))
  if (form === 'page') return file('merge-report.md', 'text/markdown', mergeReportPage(report, 'Merge report'))
  return report
}
