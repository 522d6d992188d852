import type { Page } from '@playwright/test'

/** What was drawn anew, by the name of the part of the screen in which it stands. */
export type Renders = Record<string, number>

declare global {
  interface Window {
    folvetRenders: Renders
  }
}

/**
 * Counts in a page how often components are drawn anew: React calls a hook after each commit, and of each component that
 * was at work the nearest element on the screen tells where. To be called before the page is opened.
 */
export async function countRenders(page: Page): Promise<void> {
  await page.addInitScript(() => {
    interface Fiber {
      tag: number
      flags: number
      child: Fiber | null
      sibling: Fiber | null
      return: Fiber | null
      alternate: Fiber | null
      stateNode: unknown
    }
    const COMPONENTS = new Set([0, 11, 14, 15])
    const PERFORMED_WORK = 1
    window.folvetRenders = {}
    const elementAt = (fiber: Fiber): Element | null => {
      for (let at: Fiber | null = fiber; at; at = at.child) if (at.stateNode instanceof Element) return at.stateNode
      for (let at: Fiber | null = fiber; at; at = at.return) if (at.stateNode instanceof Element) return at.stateNode
      return null
    }
    const placeOf = (fiber: Fiber): string => {
      const place = elementAt(fiber)?.closest('[role="treeitem"], aside[aria-label], header, footer, [role="tree"]')
      return (
        place?.getAttribute('aria-label') ?? place?.getAttribute('role') ?? place?.tagName.toLowerCase() ?? 'elsewhere'
      )
    }
    const visit = (fiber: Fiber, before: Fiber | null) => {
      if (COMPONENTS.has(fiber.tag) && fiber.flags & PERFORMED_WORK) {
        const place = placeOf(fiber)
        window.folvetRenders[place] = (window.folvetRenders[place] ?? 0) + 1
      }
      // Children that are the same object as before were left out by React.
      if (before && fiber.child === before.child) return
      for (let child = fiber.child; child; child = child.sibling) visit(child, child.alternate)
    }
    Object.assign(window, {
      __REACT_DEVTOOLS_GLOBAL_HOOK__: {
        supportsFiber: true,
        inject: () => 1,
        onCommitFiberUnmount: () => {},
        onPostCommitFiberRoot: () => {},
        onCommitFiberRoot: (_: number, { current }: { current: Fiber }) => visit(current, current.alternate),
      },
    })
  })
}

/** What was drawn anew while something was done. */
export async function rendersOf(page: Page, act: () => Promise<unknown>): Promise<Renders> {
  await page.evaluate(() => {
    window.folvetRenders = {}
  })
  await act()
  return await page.evaluate(() => window.folvetRenders)
}

/** Resolves when nothing has been drawn anew for thirty frames, about half a second: what follows by itself is over. */
export async function drawnOut(page: Page): Promise<void> {
  await page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        const count = () => Object.values(window.folvetRenders).reduce((sum, times) => sum + times, 0)
        const look = (before: number, left: number) => {
          if (left === 0) return resolve()
          requestAnimationFrame(() => {
            const now = count()
            look(now, now === before ? left - 1 : 30)
          })
        }
        look(count(), 30)
      }),
  )
}
