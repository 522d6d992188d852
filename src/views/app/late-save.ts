/** When what is being written is saved: a moment after the last key, and at the latest some time after the first one that is not saved. */
export class LateSave {
  private timer: ReturnType<typeof setTimeout> | null = null
  private since: number | null = null

  /** Both in ms. */
  constructor(
    private readonly pause: number,
    private readonly longest: number,
  ) {}

  /** A key was pressed. */
  ask(save: () => void): void {
    if (this.timer !== null) clearTimeout(this.timer)
    const now = performance.now()
    this.since ??= now
    const latest = this.since + this.longest - now
    this.timer = setTimeout(save, Math.max(0, Math.min(this.pause, latest)))
  }

  /** It is saved now, or given up. */
  settle(): void {
    if (this.timer !== null) clearTimeout(this.timer)
    this.timer = null
    this.since = null
  }

  get isDue(): boolean {
    return this.timer !== null
  }
}
