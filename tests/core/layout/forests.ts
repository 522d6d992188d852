import fc from 'fast-check'
import { blankTopic } from '../../../src/core/commands/blank-topic'
import { PLAIN_MAP } from '../../../src/core/commands/maps'
import type { MapLayout, TopicBox } from '../../../src/core/layout/boxes'
import { EnclosureId, FileId, MapId, TopicId } from '../../../src/core/records/ids'
import { LayoutKind } from '../../../src/core/records/layout'
import { type MapLook, PLAIN_MAP_LOOK, TopicShape, WholeLook } from '../../../src/core/records/look'
import type { MapRecord } from '../../../src/core/records/map'
import { type Place, parentOf } from '../../../src/core/records/place'
import { Records } from '../../../src/core/records/records'
import type { TopicRecord } from '../../../src/core/records/topic'

const PICTURE = FileId.parse('00000000-0000-7000-8000-00000000bbbb')
export const MAP = MapId.parse('00000000-0000-7000-8000-00000000aaaa')
export const topicId = (i: number) => TopicId.parse(`00000000-0000-7000-8000-${i.toString(16).padStart(12, '0')}`)
const enclosureId = (i: number) => EnclosureId.parse(`00000000-0000-7000-8001-${i.toString(16).padStart(12, '0')}`)

/** A topic of a generated map: it hangs on one of those before it, and has anything that can matter to layout. */
export const sapling = fc.record({
  parent: fc.nat(1_000),
  words: fc.oneof(fc.nat(4), fc.nat(40)),
  left: fc.boolean(),
  layout: fc.oneof(
    { weight: 6, arbitrary: fc.constant(null) },
    { weight: 1, arbitrary: fc.constantFrom(...LayoutKind.options) },
  ),
  byHand: fc.oneof(
    { weight: 12, arbitrary: fc.constant(null) },
    {
      weight: 1,
      arbitrary: fc.record({ x: fc.integer({ min: -900, max: 900 }), y: fc.integer({ min: -600, max: 600 }) }),
    },
  ),
  loose: fc.nat(14).map((n) => n === 0),
  folded: fc.nat(14).map((n) => n === 0),
  day: fc.option(fc.nat(300), { nil: null }),
  number: fc.nat(20).map((n) => (n === 0 ? '7b' : null)),
  /** What it shows besides its text: looks of its own and of its branch, a picture, badges. */
  dress: fc.oneof(
    { weight: 5, arbitrary: fc.constant({}) },
    {
      weight: 1,
      arbitrary: fc.record({
        look: fc.option(fc.record({ size: fc.constantFrom(12, 24, 40), fill: fc.constant('#204060') })),
        branchLook: fc.option(
          fc.record({
            shape: fc.constantFrom(...TopicShape.options),
            font: fc.constantFrom('plain' as const, 'hand' as const),
          }),
        ),
        picture: fc.option(
          fc.record({ file: fc.constant(PICTURE), width: fc.nat(300).map((n) => n + 16), height: fc.constant(90) }),
        ),
        badges: fc.array(fc.constantFrom('icon:star', '🌱', 'icon:flag'), { maxLength: 3 }),
      }),
    },
  ),
})
export type Sapling = typeof sapling extends fc.Arbitrary<infer S> ? S : never

/** A topic of one word below the first one, with nothing special about it. */
export const plain: Sapling = {
  parent: 0,
  words: 1,
  left: false,
  layout: null,
  byHand: null,
  loose: false,
  folded: false,
  day: null,
  number: null,
  dress: {},
}

export const ground = fc.record({
  look: fc.constantFrom(null, ...WholeLook.options).map((whole) => whole && { ...PLAIN_MAP_LOOK, whole }),
  layout: fc.constantFrom(...LayoutKind.options),
  spacing: fc.constantFrom(0.6, 1, 1.7),
  numbering: fc.constantFrom(null, 'decimal' as const, 'turns' as const, 'sections' as const),
})

const WORDS = ['water', 'a', 'ditch-blocking', 'peat', 'dipwell', 'of', 'Sphagnum', 'to', 'board']
const day = (offset: number) => new Date(Date.UTC(2026, 0, 1 + offset)).toISOString().slice(0, 10)

function topicOf(saplings: readonly Sapling[], i: number): TopicRecord {
  const { parent, words, left, layout, byHand, loose, folded, day: offset, number, dress } = saplings[i]!
  const hanging = {
    map: MAP,
    parent: topicId(parent % Math.max(i, 1)),
    rank: `a${(i + 1).toString(36).padStart(4, '0')}5`,
    side: left ? ('left' as const) : ('right' as const),
  }
  const place: Place =
    i === 0
      ? { kind: 'root', map: MAP }
      : loose
        ? { kind: 'loose', map: MAP, x: parent - 500, y: words * 10 }
        : byHand
          ? { kind: 'by hand', ...hanging, ...byHand }
          : { kind: 'arranged', ...hanging }
  const text = Array.from({ length: words + 1 }, (_, n) => WORDS[(i + n) % WORDS.length]).join(' ')
  const dates = offset === null ? null : { start: day(offset), end: null }
  return { ...blankTopic(topicId(i), place, text), layout, folded, dates, number, ...dress }
}

export function recordsOf(
  shape: Pick<MapRecord, 'layout' | 'spacing' | 'numbering'> & { look?: MapLook | null },
  saplings: readonly Sapling[],
): Records {
  const records = new Records()
  records.put('map', {
    id: MAP,
    title: 'Forest',
    ...PLAIN_MAP,
    ...shape,
    trashed: false,
  })
  saplings.forEach((_, i) => {
    records.put('topic', topicOf(saplings, i))
  })
  return records
}

/** Puts enclosures around some neighbours: pairs of the number of a topic and how many of its siblings follow. */
export function enclose(records: Records, count: number, chosen: readonly [number, number][]): void {
  chosen.forEach(([at, more], n) => {
    const topic = records.need('topic', topicId(at % count))
    const parent = parentOf(topic)
    if (!parent) return
    const siblings = records.children(parent)
    const from = siblings.findIndex(({ id }) => id === topic.id)
    const topics = siblings.slice(from, from + 1 + more).map(({ id }) => id)
    const title = n % 2 ? 'An enclosure' : ''
    records.put('enclosure', {
      id: enclosureId(n),
      topics,
      title,
      note: n % 3 ? '' : 'A note',
      tone: null,
      look: null,
      trashed: false,
    })
  })
}

/** Pairs of topics whose boxes lie on one another. A sweep over the upper edges. */
export function overlaps({ boxes }: MapLayout): string[] {
  const slack = 1e-6
  const found: string[] = []
  let active: TopicBox[] = []
  for (const box of [...boxes].sort((a, b) => a.y - b.y)) {
    active = active.filter((other) => other.y + other.height > box.y + slack)
    for (const other of active)
      if (box.x < other.x + other.width - slack && other.x < box.x + box.width - slack)
        found.push(`${other.topic.id.slice(-4)} / ${box.topic.id.slice(-4)}`)
    active.push(box)
  }
  return found
}

/** Where everything stands, for comparing two layouts. */
export const standing = ({ boxes, enclosures, bounds }: MapLayout) => ({
  boxes: boxes.map(({ topic, x, y, width, height, hue, number, growth, parent }) => ({
    id: topic.id,
    text: topic.text,
    at: [x, y, width, height],
    hue,
    number,
    growth,
    parent: parent?.topic.id,
  })),
  enclosures,
  bounds,
})
