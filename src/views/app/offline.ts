import { BUILD } from '../../core/build'
import { whenIdle } from './when-idle'

/** What was asked for together is told together, in ms. */
const TOGETHER_MS = 1_000

const isPart = (address: string): boolean => new URL(address).pathname.startsWith('/_astro/')

/**
 * Has the browser keep the page that shows maps, with the parts that it is made of, so that maps open without a connection
 * (`public/offline-worker.js`). Does nothing where the browser has no service workers.
 */
export function keepForOffline(): void {
  if (!('serviceWorker' in navigator) || !BUILD) return
  whenIdle(() => void begin().catch(() => {}), 5_000)
}

async function begin(): Promise<void> {
  await navigator.serviceWorker.register('/offline-worker.js', { scope: '/c/' })
  const { active } = await navigator.serviceWorker.ready
  const waiting = new Set<string>()
  let timer: ReturnType<typeof setTimeout> | undefined
  const tell = () => {
    timer = undefined
    active?.postMessage({ build: BUILD, parts: [...waiting], page: window.location.pathname })
    waiting.clear()
  }
  new PerformanceObserver((list) => {
    for (const { name } of list.getEntries()) if (isPart(name)) waiting.add(name)
    if (waiting.size > 0 && timer === undefined) timer = setTimeout(tell, TOGETHER_MS)
  }).observe({ type: 'resource', buffered: true })
}
