/**
 * Shows maps where the server cannot be reached: the page that shows any map, and the parts that it is made of, are kept here. What a
 * page asks for is told by the page (`src/views/app/offline.ts`); what stands on the maps is kept by it too, and not here.
 */
const KEPT = 'folvet-parts-'
/** Under which name the page that shows any map is kept. */
const PAGE = '/c/page'
const OF_A_MAP = /^\/c\/[^/]+\/m\/[^/]+\/?$/
/** The version that runs, and the one before: its windows may still be open. */
const VERSIONS_KEPT = 2
/** Where a page names its parts, and a part those that it begins with; what it asks for later it can do without. */
const PART_OF_PAGE = /["'](\/_astro\/[^"']+)["']/g
const NEEDED = /(?:from|import)\s*["'](\.[^"']+\.js)["']/g

self.addEventListener('install', (event) => {
  // What is asked of the server goes there without a detour, where a browser can be told so.
  event.addRoutes?.({ condition: { urlPattern: '/api/*' }, source: 'network' })
  self.skipWaiting()
})

self.addEventListener('activate', (event) => {
  event.waitUntil(Promise.all([self.clients.claim(), self.registration.navigationPreload?.enable()]))
})

self.addEventListener('message', (event) => {
  const { build, parts, page } = event.data
  event.waitUntil(keep(build, parts, page))
})

self.addEventListener('fetch', (event) => {
  const { request } = event
  const { origin, pathname } = new URL(request.url)
  if (request.method !== 'GET' || origin !== self.location.origin) return
  if (pathname.startsWith('/_astro/')) event.respondWith(partOf(request))
  else if (request.mode === 'navigate' && OF_A_MAP.test(pathname)) event.respondWith(pageOf(event))
})

async function keep(build, parts, page) {
  const cache = await caches.open(KEPT + build)
  await keepParts(cache, parts)
  if (!(await cache.match(PAGE))) {
    const answer = await fetch(page)
    // It may be made of parts that nobody has asked for: a map can be shown in place of another page.
    const isPage = answer.ok && !answer.redirected
    if (isPage) await keepParts(cache, matchesOf(PART_OF_PAGE, await answer.clone().text()))
    if (isPage) await cache.put(PAGE, answer)
  }
  for (const name of (await versions()).slice(0, -VERSIONS_KEPT)) await caches.delete(name)
}

/** Keeps parts with those that they cannot be without, each once; one that cannot be fetched is left out. */
async function keepParts(cache, parts) {
  const known = new Set(parts)
  // What is found is looked through too.
  for (const part of known) {
    if (await cache.match(part)) continue
    const answer = await fetch(part).catch(() => null)
    if (!answer?.ok) continue
    const text = part.endsWith('.js') ? await answer.clone().text() : ''
    await cache.put(part, answer)
    const base = new URL(part, self.location.origin)
    for (const name of matchesOf(NEEDED, text)) known.add(new URL(name, base).pathname)
  }
}

const matchesOf = (pattern, text) => Array.from(text.matchAll(pattern), ([, found]) => found)

/** The versions of which something is kept, the newest last. */
async function versions() {
  return (await caches.keys()).filter((name) => name.startsWith(KEPT))
}

async function fromHere(request) {
  for (const name of (await versions()).reverse()) {
    const kept = await (await caches.open(name)).match(request, { ignoreVary: true })
    if (kept) return kept
  }
  return undefined
}

/** A part that is not here and cannot be fetched is answered as missing: what asked for it tells so in its place. */
async function partOf(request) {
  return (await fromHere(request)) ?? fetch(request).catch(() => Response.error())
}

async function pageOf(event) {
  try {
    return (await event.preloadResponse) ?? (await fetch(event.request))
  } catch (error) {
    const kept = await fromHere(PAGE)
    if (!kept) throw error
    return kept
  }
}
