import type { MapRecord } from '../core/records/map'
import type { Records } from '../core/records/records'
import { type Addresses, relative } from './addresses'
import { type Html, html } from './html'
import { writePage } from './page'

/** The home page: every map of the site, hung by its home doorway, with the number of its topics. */
export function indexPage(
  records: Records,
  siteTitle: string,
  homeMap: string | null,
  addresses: Addresses,
  countTopics: (map: string) => number,
): string {
  const below = new Map<string | null, MapRecord[]>()
  for (const map of addresses.published) {
    const above = records.get('topic', map.homeDoorway)?.place.map ?? null
    const key = above && addresses.map(above) ? above : null
    below.set(key, [...(below.get(key) ?? []), map])
  }
  const list = (parent: string | null): Html | null => {
    const maps = [...(below.get(parent) ?? [])].sort((a, b) => Number(b.id === homeMap) - Number(a.id === homeMap))
    if (maps.length === 0) return null
    const items = maps.map((map) => {
      const count = countTopics(map.id)
      return html`<li><a href="${relative('index.html', addresses.map(map.id)!)}">${map.title}</a> <span class="where">${count} ${count === 1 ? 'topic' : 'topics'}</span>${list(map.id)}</li>`
    })
    return html`<ul>${items}</ul>`
  }
  const body = html`<main><article id="text"><h1>${siteTitle}</h1><div class="maps">${list(null) ?? html`<p>There are no maps in this site yet.</p>`}</div></article></main>`
  return writePage({ path: 'index.html', title: siteTitle, siteTitle, breadcrumbs: [], body })
}

export const notFoundPage = (siteTitle: string): string =>
  writePage({
    path: '404.html',
    title: 'Not found',
    siteTitle,
    breadcrumbs: [],
    body: html`<main><article id="text"><h1>There is no such page</h1><p>It may have been renamed or taken out of the site. <a href="index.html">All maps of this site</a></p></article></main>`,
  })
