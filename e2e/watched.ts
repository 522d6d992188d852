import { mkdir, rmdir } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { type BrowserContext, test as base, expect } from '@playwright/test'

export type { Browser, BrowserContext, Page } from '@playwright/test'
export { expect }

/** What went wrong in a page without the story having said that it may. */
class Troubles {
  readonly heard: string[] = []
  private readonly allowed: RegExp[] = []

  /** A story in which something has to go wrong says what, by a part of its words. */
  allow = (words: RegExp): void => void this.allowed.push(words)

  watch(context: BrowserContext): void {
    context.on('weberror', (error) => this.note(`uncaught: ${error.error().stack ?? error.error().message}`))
    context.on('console', (message) => {
      // What the server refused is told below, with its address.
      // A line that is cut is cut by the story itself.
      const isTold = /^Failed to load resource: (the server responded|net::ERR_INTERNET_DISCONNECTED)/
      if (message.type() !== 'error' || isTold.test(message.text())) return
      this.note(`console: ${message.text()} (${message.location().url})`)
    })
    context.on('response', (response) => {
      if (response.status() >= 400) this.note(`${response.status()} ${response.request().method()} ${response.url()}`)
    })
  }

  private note(words: string): void {
    if (!this.allowed.some((allowed) => allowed.test(words))) this.heard.push(words)
  }

  /** What nobody allowed, also where that was only said afterwards. */
  get unexpected(): string[] {
    return this.heard.filter((words) => !this.allowed.some((allowed) => allowed.test(words)))
  }
}

/** Takes the demo for one story, among all workers of this run. */
async function theDemo(): Promise<{ release(): Promise<void> }> {
  const taken = join(tmpdir(), `folvet-demo-taken-${process.ppid}`)
  while (
    !(await mkdir(taken).then(
      () => true,
      () => false,
    ))
  )
    await wait(200)
  return { release: () => rmdir(taken) }
}

/**
 * Every story fails on an uncaught error, an error on the console, and an answer of 400 or more, in whichever window it
 * happens, unless the story has said so by `allow`.
 */
export const test = base.extend<{ troubles: Troubles; allow: Troubles['allow']; lookAtDemo(): Promise<void> }>({
  troubles: [
    async ({ browser }, use) => {
      const troubles = new Troubles()
      const watched = (context: BrowserContext) => troubles.watch(context)
      for (const context of browser.contexts()) troubles.watch(context)
      browser.on('context', watched)
      await use(troubles)
      browser.off('context', watched)
      if (troubles.unexpected.length > 0)
        throw new Error(`In the browser something went wrong:\n${troubles.unexpected.join('\n')}`)
    },
    { auto: true },
  ],
  allow: async ({ troubles }, use) => use(troubles.allow),
  /** Enters the demo as a newcomer does, up to its home map. There is one demo for all: stories in it come one after the other. */
  lookAtDemo: [
    async ({ page }, use) => {
      const { release } = await theDemo()
      await use(async () => {
        await page.goto('/')
        await page.getByRole('button', { name: 'Look at the demo: the Vennmoor handbook' }).click()
        await expect(page.getByRole('tree', { name: 'Map Vennmoor handbook' })).toBeVisible()
      })
      await release()
    },
    // Waiting for the story before is no time of this one.
    { timeout: 600_000 },
  ],
})
