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

/**
 * The worker of a registration when it is at work. `ready` is of no help: it never comes where the page was loaded elsewhere, as the
 * list of collections is, and shows a map in place.
 */
function activated({ active, waiting, installing }: ServiceWorkerRegistration): Promise<ServiceWorker | null> {
  const worker = active ?? waiting ?? installing
  if (!worker || worker.state === 'activated') return Promise.resolve(worker)
  return new Promise((resolve) => {
    worker.addEventListener('statechange', () => worker.state === 'activated' && resolve(worker))
  })
}

async function begin(): Promise<void> {
  const registration = await navigator.serviceWorker.register('/offline-worker.js', { scope: '/c/' })
  const worker = await activated(registration)
  const waiting = new Set<string>()
  let timer: ReturnType<typeof setTimeout> | undefined
  const tell = () => {
    timer = undefined
    worker?.postMessage({ build: BUILD, parts: [...waiting], page: window.location.pathname })
    waiting.clear()
  }
  new PerformanceObserver((list) => {
    for (const { name } of list.getEntries()) if (isPart(name)) waiting.add(name)
    if (waiting.size > 0 && timer === undefined) timer = setTimeout(tell, TOGETHER_MS)
  }).observe({ type: 'resource', buffered: true })
}
