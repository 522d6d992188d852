import { planMergeOf } from '../commands/compute'
import { runCommand } from '../commands/run-command'

/** What runs in a thread of its own, by name. Arguments and results travel as copies. */
export const tasks = { runCommand, planMergeOf }
export type Tasks = typeof tasks
