import { refuse } from '../changes/problem'
import { readIndentedText } from '../formats/indented-text'
import { type OutlineItem, outlineItem } from '../formats/outline'
import type { CollectionId, TopicId } from '../records/ids'
import type { LayoutKind, NumberingScheme } from '../records/layout'
import type { Records } from '../records/records'
import type { TemplateLine } from '../records/template'
import type { TopicRecord } from '../records/topic'
import { TEMPLATES } from '../templates/templates'
import { Draft, type Making, named, type Outcome } from './command'
import { hasSides } from './layouts'
import { createMap } from './maps'
import { plant } from './plant'

const DAY_MS = 86_400_000
const OFFSET = / @\+(\d+)$/

/** A template ready for planting: ours and those that people have kept alike. */
interface Beginning {
  name: string
  layout: LayoutKind
  numbering: NumberingScheme | null
  items: readonly OutlineItem[]
  /** Days after the day of making. */
  days: ReadonlyMap<OutlineItem, number>
}

/** A template by its id, ours or one that was kept. */
function beginningOf(records: Records, id: string): Beginning {
  const kept = records.get('template', id)
  if (kept && !kept.trashed) return { ...kept, ...fromLines(kept.lines) }
  const ours = TEMPLATES.find((template) => template.id === id) ?? refuse('gone', 'There is no such template.')
  return { ...ours, ...fromText(ours.text) }
}

function fromText(text: string) {
  const days = new Map<OutlineItem, number>()
  const items = readIndentedText(text)
  const waiting = [...items]
  for (let item = waiting.pop(); item; item = waiting.pop()) {
    const offset = OFFSET.exec(item.text)
    if (offset) {
      days.set(item, Number(offset[1]))
      item.text = item.text.replace(OFFSET, '')
    }
    waiting.push(...item.children)
  }
  return { items, days }
}

function fromLines(lines: readonly TemplateLine[]) {
  const days = new Map<OutlineItem, number>()
  const items: OutlineItem[] = []
  /** The way from the first level down to the last item; a line that is too deep hangs as deep as it can. */
  const way: OutlineItem[] = []
  for (const { level, text, note, links, day } of lines) {
    const item: OutlineItem = { ...outlineItem(text), note, links: [...links] }
    if (day !== null) days.set(item, day)
    way.length = Math.min(way.length, level)
    const above = way.at(-1)
    if (above) above.children.push(item)
    else items.push(item)
    way.push(item)
  }
  return { items, days }
}

/** `today` is the day from which the dates of a template are counted, in ISO 8601. */
interface Use {
  template: string
  today: string
}

function plantTemplate(
  draft: Draft,
  parent: TopicRecord,
  atRoot: boolean,
  { items, days }: Beginning,
  today: string,
): TopicId[] {
  const planted = plant(draft, parent, items, atRoot)
  for (const { item, topic } of planted) {
    const offset = days.get(item)
    if (offset === undefined) continue
    const start = new Date(Date.parse(today) + offset * DAY_MS).toISOString().slice(0, 10)
    draft.update('topic', topic.id, { dates: { start, end: null } })
  }
  return items.map((item) => planted.find((one) => one.item === item)!.topic.id)
}

/** Makes a map that begins with a template. */
export function makeMapFrom(
  records: Records,
  args: Use & { collection: CollectionId; title: string },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const beginning = beginningOf(records, args.template)
  const { layout, numbering } = beginning
  const { map, root } = createMap(draft, args.title, args.title, null)
  draft.update('map', map, { layout, numbering })
  if (records.get('collection', args.collection)?.homeMap === null)
    draft.update('collection', args.collection, { homeMap: map })
  plantTemplate(draft, { id: root, place: { map, parent: null } } as TopicRecord, true, beginning, args.today)
  return draft.outcome(`Make the map ${named(args.title)}`, [root])
}

/** Hangs a template below a topic of any map. */
export function insertTemplate(records: Records, args: Use & { topic: TopicId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const beginning = beginningOf(records, args.template)
  if (topic.folded) draft.update('topic', topic.id, { folded: false })
  const made = plantTemplate(draft, topic, hasSides(topic), beginning, args.today)
  return draft.outcome(`Insert ${beginning.name.toLowerCase()}`, made.slice(0, 1))
}
