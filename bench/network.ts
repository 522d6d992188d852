import { v7 as uuid } from 'uuid'
import { prepareChange } from '../src/core/changes/prepare'
import { addCrosslink } from '../src/core/commands/crosslinks'
import { hangItems } from '../src/core/commands/hang-items'
import { makeMap } from '../src/core/commands/maps'
import { proposeSplit } from '../src/core/crowding/propose-split'
import { type OutlineItem, outlineItem } from '../src/core/formats/outline'
import { matchMaps, type TextTree } from '../src/core/matching/match-maps'
import { mentionsIn } from '../src/core/network/mentions'
import { CollectionId, type MapId } from '../src/core/records/ids'
import { Records } from '../src/core/records/records'
import { ALL_FONTS } from '../src/core/text/all-fonts'
import { english } from '../src/server/lexicon/lexicon'
import { labelledMerges, qualityOf } from '../tests/core/matching/labelled'
import { type Measurement, median, seededRandom } from './measure'

const NEW_IDS = { newId: uuid }
const ROUNDS = 5
const WORDS =
  `river dam weir water ditch peat moss bird survey permit school visit fund money tool boat bridge path gate fence tree seed
   flower harvest market price letter phone meeting report map photo film archive museum guide tour ticket train bus hotel bed
   kitchen oven bread cake`.split(/\s+/)

/** Three words that are always the same for a number, and a number after every seventh. */
function textOf(number: number): string {
  const random = seededRandom(number)
  const words = Array.from({ length: 3 }, () => WORDS[Math.floor(random() * WORDS.length)])
  return words.join(' ') + (number % 7 === 0 ? ` ${number % 50}` : '')
}

const row = (name: string, values: readonly number[], limit: number, note: string): Measurement => ({
  name,
  value: median(values),
  unit: 'ms',
  peer: null,
  peerValue: null,
  ratio: null,
  limit,
  ok: median(values) < limit,
  note,
})

/** What work takes, the median of some rounds after one to begin with. In ms. */
function timesOf(work: () => void): number[] {
  work()
  return Array.from({ length: ROUNDS }, () => {
    const start = performance.now()
    work()
    return performance.now() - start
  })
}

const TOPICS = 10_000
const LINKS = 500

/** The proposal for a map of 10,000 topics with 500 cross-links, up to its names and the look at every map it makes. */
export function measureSplit(): Measurement {
  const records = new Records()
  const collection = CollectionId.parse(uuid())
  records.put('collection', { id: collection, title: 'Bench', homeMap: null, look: null, limits: null, trashed: false })
  const perform = ({ change }: { change: { edits: Parameters<typeof prepareChange>[1] } }) =>
    prepareChange(records, change.edits, true)
  const made = makeMap(records, { collection, title: 'Bench' }, NEW_IDS)
  perform(made)
  let number = 0
  const below = (depth: number): OutlineItem[] =>
    Array.from({ length: [30, 12, 10, 8, 6, 3][depth] ?? 0 }, () => {
      if (++number >= TOPICS) return []
      return { ...outlineItem(textOf(number)), children: below(depth + 1) }
    }).flat()
  perform(hangItems(records, { topic: made.select[0]!, items: below(0), act: 'Paste' }, NEW_IDS))
  const map: MapId = records.need('topic', made.select[0]!).place.map
  const topics = [...records.topicsOf(map)]
  for (let i = 0; i < LINKS; i++) {
    const from = topics[(i * 7919) % topics.length]!.id
    const to = topics[(i * 7919 + 1 + (i % 40)) % topics.length]!.id
    perform(addCrosslink(records, { from, to: { kind: 'topic', id: to }, drawn: 'quiet' }, NEW_IDS))
  }
  const context = { fonts: ALL_FONTS, countTopics: () => 0 }
  let parts = 0
  const times = timesOf(() => {
    parts = proposeSplit(records, map, context, NEW_IDS).length
  })
  return row('split-10k', times, 500, `${topics.length} topics, ${parts} maps proposed`)
}

/** What two maps of 5,000 topics that share half of them have in common. */
export function measureMatching(): Measurement {
  const tree = (text: (node: number) => string): TextTree => ({
    texts: Array.from({ length: 5_000 }, (_, node) => text(node)),
    parents: Array.from({ length: 5_000 }, (_, node) => (node === 0 ? -1 : node < 12 ? 0 : Math.floor((node - 1) / 8))),
  })
  const first = tree(textOf)
  const second = tree((node) => textOf(node % 2 === 1 ? node : node + 100_000))
  const lexicon = english()
  let found = 0
  const times = timesOf(() => {
    found = matchMaps(first, second, lexicon).length
  })
  return row('merge-5k', times, 1_500, `${found} pairs`)
}

/** What is named in 50,000 topics and notes: names of three words, of which some stand in texts of thirty. */
export function measureMentions(): Measurement {
  const texts = Array.from({ length: 50_000 }, (_, i) => ({
    id: String(i),
    text:
      i % 5 === 0
        ? Array.from({ length: 10 }, (_, part) => textOf((i * 31 + part * 977) % 90_000)).join(', ')
        : textOf(i),
  }))
  const names = texts.filter((_, i) => i % 5 !== 0)
  let found = 0
  const times = timesOf(() => {
    found = mentionsIn(texts, names).length
  })
  return row('mentions-50k', times, 3_000, `${found} mentions of ${names.length} names`)
}

/** How well topics that are the same are found, on the half of the labelled merges that was kept apart. */
export function measureQuality(): Measurement[] {
  const kept = labelledMerges().filter((_, i) => i % 2 === 1)
  const lexicon = english()
  const { same, either } = qualityOf(kept, ({ a, b }) => matchMaps(a, b, lexicon))
  const part = (name: string, value: number, limit: number, of: string): Measurement => ({
    name,
    value,
    unit: '',
    peer: null,
    peerValue: null,
    ratio: null,
    limit,
    ok: value >= limit,
    note: of,
  })
  return [
    part('match-same-precision', same.precision, 0.98, `${same.found} pairs called the same`),
    part('match-same-recall', same.recall, 0.85, `${same.right} labelled the same`),
    part('match-either-precision', either.precision, 0.8, `${either.found} called the same or likely`),
    part('match-either-recall', either.recall, 0.95, `${either.right} labelled so`),
  ]
}
