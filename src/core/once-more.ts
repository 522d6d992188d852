/**
 * Work that is done once for all who ask for it meanwhile, one run at a time: what is asked for while it runs is done by a run after it.
 * So nothing that came too late for a run is left until somebody asks again.
 */
export class OnceMore {
  private isAsked = false
  private isRunning = false
  private running: Promise<void> = Promise.resolve()

  constructor(private readonly work: () => Promise<void>) {}

  /** Resolves when the work was done after this; rejects where a run failed, and then what was asked for waits for who asks next. */
  ask(): Promise<void> {
    this.isAsked = true
    if (!this.isRunning) this.running = this.runs()
    return this.running
  }

  private async runs(): Promise<void> {
    this.isRunning = true
    try {
      while (this.isAsked) {
        this.isAsked = false
        await this.work()
      }
    } finally {
      this.isRunning = false
    }
  }
}
