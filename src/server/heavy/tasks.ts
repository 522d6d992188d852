import { planMergeOf } from '../commands/compute'
import { runCommand } from '../commands/run-command'
import { draft } from '../drafting'
import { runJob } from '../jobs/run-job'

/** What runs in a thread of its own, by name. Arguments and results travel as copies. */
export const tasks = { runCommand, planMergeOf, draft, runJob }
export type Tasks = typeof tasks
