import { findCalendars } from '../calendars/caldav'
import { adopt } from '../commands/adopt'
import { planMergeOf } from '../commands/merge-request'
import { runCommand } from '../commands/run-command'
import { countCrowded, crowdedMaps, splitComesTo } from '../crowding'
import { draft } from '../drafting'
import { drawThumbnail } from '../draw-thumbnail'
import { emptyTrash } from '../empty-trash'
import { fileLedgerOf } from '../file-ledger'
import { takeText } from '../files/reading/take-text'
import { runJob } from '../jobs/run-job'
import { linkLedgerOf, wayBetween } from '../link-ledger'
import { pageDifferences } from '../page-differences'
import { suggestBands } from '../sorting'

/** What runs in a thread of its own, by name. Arguments and results travel as copies. */
export const tasks = {
  runCommand,
  adopt,
  planMergeOf,
  draft,
  runJob,
  drawThumbnail,
  linkLedgerOf,
  fileLedgerOf,
  wayBetween,
  suggestBands,
  crowdedMaps,
  countCrowded,
  emptyTrash,
  splitComesTo,
  takeText,
  findCalendars,
  pageDifferences,
}
export type Tasks = typeof tasks
