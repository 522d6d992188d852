import type { ToldJob } from '../../core/records/snapshot'

const isRunning = ({ state }: ToldJob) => state === 'waiting' || state === 'running' || state === 'ending'

/** The jobs of a collection as they were last told. */
export class Jobs {
  private told: readonly ToldJob[] = []
  private readonly waiting = new Map<string, (job: ToldJob) => void>()

  get running(): readonly ToldJob[] {
    return this.told.filter(isRunning)
  }

  /** Takes what was told. Returns the jobs of a person that ended meanwhile and that nobody here waits for. */
  take(jobs: readonly ToldJob[], person: string): ToldJob[] {
    const before = new Map(this.told.map((job) => [job.id, job]))
    this.told = jobs
    const ended = jobs.filter((job) => !isRunning(job) && before.has(job.id) && isRunning(before.get(job.id)!))
    for (const job of jobs) if (!isRunning(job)) this.waiting.get(job.id)?.(job)
    return ended.filter(({ id, person: whose }) => whose === person && !this.waiting.has(id))
  }

  /** Resolves when a job has ended: as soon as that is told, or `look` finds it so, however it is told. */
  async ended(id: string, look: () => Promise<ToldJob>): Promise<void> {
    let isOver = false
    const told = new Promise<void>((resolve) => {
      this.waiting.set(id, () => resolve())
    }).then(() => {
      isOver = true
    })
    try {
      for (let pause = FIRST_LOOK_MS; !isOver; pause = Math.min(pause * 2, LAST_LOOK_MS)) {
        await Promise.race([told, new Promise((resolve) => setTimeout(resolve, pause))])
        // While the connection is away it is not known how far it is: that is no answer.
        const job = await look().catch(() => null)
        if (job && !isRunning(job)) return
      }
    } finally {
      this.waiting.delete(id)
    }
  }
}

/** How long one waits before looking whether a job has ended that was not told to have ended, in ms. */
const FIRST_LOOK_MS = 500
const LAST_LOOK_MS = 10_000
