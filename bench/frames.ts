import type { Page } from '@playwright/test'

interface TraceEvent {
  name: string
  ph: string
  ts: number
  pid: number
  tid: number
  dur?: number
  /** The part of `dur` in which the thread really ran, in µs. */
  tdur?: number
}

/** What counts as script, style and layout on a page's main thread. */
const WORK = new Set([
  'EvaluateScript',
  'EventDispatch',
  'FireAnimationFrame',
  'FunctionCall',
  'HitTest',
  'Layout',
  'MajorGC',
  'MinorGC',
  'ParseHTML',
  'RunMicrotasks',
  'TimerFire',
  'UpdateLayoutTree',
])
/** With this event the main thread hands a frame over. */
const FRAME = 'Layerize'
/** Frames with less than this, in ms, are those in which nothing happens but the measurement's own call. */
const IDLE = 0.5

/**
 * Records what a page does in `work`, and gives the script, style and layout time of each frame in ms, frames in which
 * nothing was done left out. It is the time that the main thread itself ran, so that drawing on the other core and
 * whatever else the machine does are not counted.
 */
export async function frameTimes(page: Page, work: () => Promise<void>): Promise<number[]> {
  const browser = page.context().browser()!
  await browser.startTracing(page, { categories: ['devtools.timeline', 'blink.user_timing'] })
  await page.evaluate(() => performance.mark('work begins'))
  await work()
  const { traceEvents } = JSON.parse((await browser.stopTracing()).toString()) as { traceEvents: TraceEvent[] }
  const begin = traceEvents.find(({ name }) => name === 'work begins')!
  const events = traceEvents
    .filter(({ pid, tid, ph, ts }) => pid === begin.pid && tid === begin.tid && ph === 'X' && ts >= begin.ts)
    .sort((a, b) => a.ts - b.ts)
  const frames: number[] = []
  let busy = 0
  let until = 0
  for (const { name, ts, dur = 0, tdur = dur } of events) {
    if (name === FRAME) {
      frames.push(busy / 1_000)
      busy = 0
    } else if (WORK.has(name) && ts >= until) {
      busy += tdur
      until = ts + dur
    }
  }
  return frames.filter((ms) => ms >= IDLE)
}
