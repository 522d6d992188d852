import { Refusal } from '../../core/changes/problem'
import { askForCalendars } from '../calendars/calendar-rows'
import { isAway } from '../database'
import { askForReading } from '../files/reading/reading-rows'
import type { Tasks } from '../heavy/tasks'
import { Thread } from '../heavy/thread'
import { log } from '../http/endpoint'
import { Failure } from '../http/failure'
import { announceJobs } from './announce-jobs'
import { closeJob, failJob, type HeldJob, holdJob, isHopeless, LostJob, letGoOf, takeJob } from './job-rows'
import { wordsForFailed } from './run-job'

/** How often this process looks for jobs that nobody is at, and says that it is at its own, in ms. */
const LOOK_MS = 2_000
const REPORT_MS = 200
/** How long a job may take, in ms, and how much memory, in MB. */
const LIMITS = { ms: 30 * 60_000, mb: 768 }

type Lane = Thread<Pick<Tasks, 'runJob'>>
/** Where jobs are worked on, two of them at once: a long one does not keep everybody else waiting. */
const lanes: Lane[] = [new Thread(LIMITS), new Thread(LIMITS)]
const working = new Map<Lane, Promise<void>>()
const held = new Set<Holding>()

/** Works on jobs from now on; called once a process: those of this process at once, others when nobody is at them. */
export function startJobs(): void {
  setInterval(look, LOOK_MS).unref()
  look()
}

/** Asks for jobs of our own, and works on what there is. */
function look(): void {
  Promise.all([askForReading(), askForCalendars()])
    .then((collections) => collections.flat().forEach(announceJobs))
    .catch((error: unknown) => {
      if (!isAway(error)) log.error({ error }, 'it could not be seen whether there is something to be done of our own')
    })
    .finally(workSoon)
}

/** To be called when there is something of our own to be done at once. */
export const lookNow = look

/** To be called when a job was added in this process. */
export function workSoon(): void {
  const idle = lanes.find((lane) => !working.has(lane))
  if (!idle) return
  const work = workAll(idle)
    .catch((error: unknown) => {
      if (!isAway(error)) log.error({ error }, 'jobs could not be worked on')
    })
    .finally(() => working.delete(idle))
  working.set(idle, work)
}

/** To be called when a job was cancelled in this process. */
export function lookAtOwn(): void {
  for (const holding of held) void holding.hold()
}

async function workAll(lane: Lane): Promise<void> {
  for (let job = await takeJob(); job; job = await takeJob()) {
    announceJobs(job.collection)
    await workOn(job, lane)
    announceJobs(job.collection)
  }
}

async function workOn(job: HeldJob, lane: Lane): Promise<void> {
  const holding = new Holding(job)
  held.add(holding)
  try {
    if (isHopeless(job)) throw new Failure(500, wordsForFailed(job))
    const following = { progress: (at: Progress) => holding.report(at), signal: holding.signal }
    if (!(await lane.run('runJob', [job], following))) throw new LostJob()
    // Of one that was to end, all is taken back now; a job that was done has finished itself.
    if (job.message === '') await closeJob(job, 'cancelled', 'This was cancelled.')
    else await closeJob(job, 'failed', job.message)
  } catch (error) {
    await afterTrouble(job, error)
  } finally {
    held.delete(holding)
    holding.end()
  }
}

async function afterTrouble(job: HeldJob, error: unknown): Promise<void> {
  if (error instanceof LostJob || error instanceof Ending || isAway(error)) {
    // One that is to end is taken up again as that; of one that is in other hands, nothing is let go.
    await letGoOf(job).catch(() => {})
    return
  }
  if (!(error instanceof Refusal || error instanceof Failure)) log.error({ error, job: job.id }, 'a job failed')
  const words = error instanceof Refusal || error instanceof Failure ? error.message : wordsForFailed(job)
  if (job.state === 'running') await failJob(job, words)
  else if (isHopeless(job)) await closeJob(job, 'failed', job.message || words)
  else await letGoOf(job)
}

interface Progress {
  done: number
  total: number
}

/** Somebody asked that the job ends. */
class Ending extends Error {}

/** Keeps a job in the hands of this process, tells how far it is, and notices when it is to end. */
class Holding {
  private readonly giving = new AbortController()
  private latest: Progress | null = null
  private readonly beat = setInterval(() => void this.hold(), LOOK_MS)
  private told: ReturnType<typeof setTimeout> | null = null
  readonly signal = this.giving.signal

  constructor(private readonly job: HeldJob) {}

  report(at: Progress): void {
    this.latest = at
    this.told ??= setTimeout(() => {
      this.told = null
      void this.hold()
    }, REPORT_MS)
  }

  async hold(): Promise<void> {
    try {
      const { latest } = this
      const state = await holdJob(this.job, latest)
      if (this.signal.aborted) return
      if (state === null) this.giving.abort(new LostJob())
      else if (state === 'ending' && this.job.state === 'running') this.giving.abort(new Ending())
      else if (latest) announceJobs(this.job.collection)
    } catch (error) {
      log.warn({ error, job: this.job.id }, 'a job could not be held: tried again in a moment')
    }
  }

  end(): void {
    clearInterval(this.beat)
    if (this.told) clearTimeout(this.told)
  }
}
