import type { HeldJob } from './job-rows'

/** How far a job is, in steps of its own. */
type Report = (done: number, total: number) => void

/** A kind of work that takes its time. Runs in a thread, and may be run again where a process ended over it. */
export interface JobKind<Input> {
  /** Does the work, and finishes the job in the transaction that makes it count: see `finishJob`. */
  run(job: HeldJob, input: Input, report: Report): Promise<void>
  /** Takes back what was done of a job that comes to nothing. */
  takeBack(job: HeldJob): Promise<void>
  /** What a person is told where it failed for a reason that is ours. */
  failed: string
  /** Whether Folvet asked for it itself, in nobody's name; else whoever asked must still be allowed to. */
  isOurs?: true
}
