import { refuse } from '../changes/problem'
import { readIndentedText } from '../formats/indented-text'
import { type OutlineItem, outlineItem } from '../formats/outline'
import type { CollectionId, TopicId } from '../records/ids'
import type { LayoutKind, NumberingScheme } from '../records/layout'
import type { Records } from '../records/records'
import type { TemplateLine } from '../records/template'
import type { TopicRecord } from '../records/topic'
import { TEMPLATES } from '../templates/templates'
import { DAY_MS } from '../text/days'
import { command, type NewChange, named } from './command'
import { unfold } from './hang'
import { becomeHomeMap, createMap } from './maps'
import { plant } from './plant'

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

function plantTemplate(change: NewChange, parent: TopicRecord, { items, days }: Beginning, today: string): TopicId[] {
  const made = new Map<OutlineItem, TopicId>()
  for (const { item, topic } of plant(change, parent, items)) {
    made.set(item, topic.id)
    const offset = days.get(item)
    if (offset === undefined) continue
    const start = new Date(Date.parse(today) + offset * DAY_MS).toISOString().slice(0, 10)
    change.update('topic', topic.id, { dates: { start, end: null } })
  }
  return items.map((item) => made.get(item)!)
}

/** Makes a map that begins with a template. Refused where there is no such template. O(lines of the template). */
export const makeMapFrom = command((change, args: Use & { collection: CollectionId; title: string }) => {
  const beginning = beginningOf(change.records, args.template)
  const { layout, numbering } = beginning
  const { map, root } = createMap(change, args.title, args.title, { layout, numbering })
  becomeHomeMap(change, args.collection, map)
  plantTemplate(change, root, beginning, args.today)
  return { label: `Make the map ${named(args.title)}`, select: [root.id] }
})

/**
 * Hangs a template below a topic of any map. Refused where the topic is gone, or there is no such template. O(lines
 * of the template).
 */
export const insertTemplate = command((change, args: Use & { topic: TopicId }) => {
  const topic = change.topic(args.topic)
  const beginning = beginningOf(change.records, args.template)
  unfold(change, topic)
  const made = plantTemplate(change, topic, beginning, args.today)
  return { label: `Insert ${beginning.name.toLowerCase()}`, select: made.slice(0, 1) }
})
