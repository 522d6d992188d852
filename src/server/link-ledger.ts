import { MapLayouter } from '../core/layout/map-layout'
import { crossingsOf, quietening, type Run } from '../core/network/clutter'
import { type Ledger, ledgerOf, type Place, placeOf } from '../core/network/ledger'
import { shortestWay, type Tie } from '../core/network/shortest-way'
import type { CrosslinkId, MapId, TopicId } from '../core/records/ids'
import type { Records } from '../core/records/records'
import { mayRead } from '../core/rights/grant'
import { type Scene, SceneMaker } from '../core/scene/scene'
import { ALL_FONTS } from '../core/text/all-fonts'
import { ENGLISH } from '../core/text/days'
import { wholeCollection } from './collections'
import { database } from './database'
import type { Member } from './http/endpoint'
import { english } from './lexicon/lexicon'

/** A map drawn small: boxes as x, y, width and height, lines as x and y of their corners; all whole px. */
interface SmallPicture {
  map: MapId
  width: number
  height: number
  boxes: [number, number, number, number][]
  lines: { link: CrosslinkId; corners: number[] }[]
}

/** How much the drawn cross-links of a collection cross, and which few can be made quiet against it. */
interface Clutter {
  crossings: number
  /** Maps on which lines cross, the most first. */
  maps: { map: MapId; crossings: number }[]
  quiet: CrosslinkId[]
  removed: number
  /** The map on which most lines cross. */
  picture: SmallPicture | null
}

type Counts = Record<keyof Ledger, number>

/** What was found at a web address when it was last looked at. */
interface WebCheck {
  url: string
  /** What is wrong there, in words; null where the page is there. */
  trouble: string | null
}

export interface LinkLedger extends Ledger {
  /** Of the web links that are told, when they were last looked at. */
  checks: WebCheck[]
  checkedAt: Date | null
  /** How many there are of each, of which at most `MOST_ROWS` are told. */
  counts: Counts
  clutter: Clutter
}

const MOST_ROWS = 3_000
/** Maps with more topics than this in all are not laid out for their crossings: the largest come last. */
const MOST_LAID_OUT = 60_000
/** Tiles of free space that are looked at for ways of lines, some seconds; lines beyond that count as they would run straight. */
const MOST_TILES = 3_000_000
const context = { fonts: ALL_FONTS, countTopics: () => 0 }
/** Boxes that a small picture shows. */
const MOST_BOXES = 800

/** All links of a collection that somebody may see. For a thread of its own. */
export async function linkLedgerOf({ collection, reach }: Member): Promise<LinkLedger> {
  const { records } = await wholeCollection(collection)
  const isOpen = (map: string) => mayRead(reach, map)
  const ledger = ledgerOf(records, isOpen, english())
  const { links, weblinks, mentions, close, overlaps } = ledger
  const told = new Set(weblinks.slice(0, MOST_ROWS).map(({ url }) => url))
  const { rows: checked } = await database().query<WebCheck & { checkedAt: Date }>(
    'SELECT url, trouble, checked_at AS "checkedAt" FROM web_check WHERE collection = $1',
    [collection],
  )
  return {
    checks: checked.filter(({ url }) => told.has(url)).map(({ url, trouble }) => ({ url, trouble })),
    checkedAt: checked[0]?.checkedAt ?? null,
    links: links.slice(0, MOST_ROWS),
    weblinks: weblinks.slice(0, MOST_ROWS),
    mentions: mentions.slice(0, MOST_ROWS),
    close: close.slice(0, MOST_ROWS),
    overlaps,
    counts: {
      links: links.length,
      weblinks: weblinks.length,
      mentions: mentions.length,
      close: close.length,
      overlaps: overlaps.length,
    },
    clutter: clutterOf(records, ledger),
  }
}

function clutterOf(records: Records, { links }: Ledger): Clutter {
  const lines = new Map<MapId, number>()
  for (const { from, to, drawn } of links)
    if (drawn === 'line' && to?.map === from.map) lines.set(from.map, (lines.get(from.map) ?? 0) + 1)
  const crowded = [...lines]
    .filter(([, count]) => count > 1)
    .map(([map]) => ({ map, topics: [...records.topicsOf(map)].length }))
  crowded.sort((a, b) => a.topics - b.topics)
  const runs: Run[] = []
  const crossed: ReturnType<typeof crossingsOf> = []
  const maps: Clutter['maps'] = []
  let most: { map: MapId; scene: Scene; crossings: number } | null = null
  let left = MOST_LAID_OUT
  const patience = { tiles: MOST_TILES }
  for (const { map, topics } of crowded) {
    left -= topics
    if (left < 0) break
    const scene = new SceneMaker(records, context, new MapLayouter(records, map, context)).make(null, ENGLISH, patience)
    const own = scene.crosslinks.map(({ link, points }): Run => ({ key: link.id, points }))
    const pairs = crossingsOf(own)
    const crossings = pairs.reduce((sum, { times }) => sum + times, 0)
    if (crossings === 0) continue
    crossed.push(...pairs.map(({ a, b, times }) => ({ a: a + runs.length, b: b + runs.length, times })))
    runs.push(...own)
    maps.push({ map, crossings })
    if (!most || crossings > most.crossings) most = { map, scene, crossings }
  }
  const { lines: quiet, removed, of } = quietening(crossed)
  return {
    crossings: of,
    maps: maps.sort((a, b) => b.crossings - a.crossings),
    quiet: quiet.map((run) => runs[run]!.key as CrosslinkId),
    removed,
    picture: most && pictureOf(most.map, most.scene),
  }
}

function pictureOf(map: MapId, { layout, crosslinks, bounds }: Scene): SmallPicture {
  const [x, y] = [(value: number) => Math.round(value - bounds.x), (value: number) => Math.round(value - bounds.y)]
  return {
    map,
    width: Math.ceil(bounds.width),
    height: Math.ceil(bounds.height),
    boxes: layout.boxes
      .slice(0, MOST_BOXES)
      .map((box) => [x(box.x), y(box.y), Math.round(box.width), Math.round(box.height)]),
    lines: crosslinks.map(({ link, points }) => ({
      link: link.id,
      corners: points.flatMap((point) => [x(point.x), y(point.y)]),
    })),
  }
}

/** A place on a way, and how the one before it leads there. */
export interface Step extends Place {
  by: Tie | null
}

/** The shortest way between two topics of a collection, as far as its maps are open; null where there is none. For a thread of its own. */
export async function wayBetween({ collection, reach }: Member, from: TopicId, to: TopicId): Promise<Step[] | null> {
  const { records } = await wholeCollection(collection)
  const start = records.get('topic', from)
  if (!start || !mayRead(reach, start.place.map)) return null
  const way = shortestWay(records, from, to, (map) => mayRead(reach, map))
  return way?.map(({ topic, by }) => ({ ...placeOf(records.need('topic', topic)), by })) ?? null
}
