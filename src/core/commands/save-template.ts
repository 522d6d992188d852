import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import { TemplateId } from '../records/ids'
import { parentOf } from '../records/place'
import { MOST_TEMPLATE_LINES, type TemplateLine } from '../records/template'
import type { TopicRecord } from '../records/topic'
import { dayNumber } from '../text/days'
import { foldForIdentity } from '../text/folding'
import { branch } from '../tree/walk'
import { command, named } from './command'

const dayOf = ({ dates }: TopicRecord): number | null => (dates ? dayNumber(dates.start) : null)

/**
 * Keeps what hangs below a topic as a template under a name, with notes and web links; dates become days after the
 * first of them. A template of the same name gives way. Refused where the topic is gone, without a name, for nothing, and
 * for more than a template holds. O(branch).
 */
export const saveTemplate = command((change, args: { topic: TopicId; name: string }) => {
  const { records } = change
  const head = change.topic(args.topic)
  const name = args.name.trim()
  if (name === '') refuse('invalid', 'A template needs a name.')
  const topics = [...branch(records, head)].slice(1)
  if (topics.length === 0) refuse('invalid', 'There is nothing below this topic to keep as a template.')
  if (topics.length > MOST_TEMPLATE_LINES)
    refuse('invalid', `A template has at most ${MOST_TEMPLATE_LINES} topics; this branch has ${topics.length}.`)
  const first = Math.min(...topics.map((topic) => dayOf(topic) ?? Number.POSITIVE_INFINITY))
  const levels = new Map<string | null, number>([[head.id, -1]])
  const lines = topics.map((topic): TemplateLine => {
    const day = dayOf(topic)
    const level = levels.get(parentOf(topic))! + 1
    levels.set(topic.id, level)
    return {
      level,
      text: topic.text,
      note: records.get('note', topic.note)?.text ?? '',
      links: records.weblinks(topic.id).map(({ url, title }) => ({ address: url, title })),
      day: day === null ? null : day - first,
    }
  })
  const map = records.get('map', head.place.map)
  const shape = {
    layout: head.layout ?? map?.layout ?? ('both' as const),
    numbering: head.numbering ?? map?.numbering ?? null,
  }
  const known = [...records.all('template')].find(
    (template) => !template.trashed && foldForIdentity(template.name) === foldForIdentity(name),
  )
  if (known) change.update('template', known.id, { ...shape, lines })
  else change.create('template', { id: change.newId(TemplateId), name, ...shape, lines, trashed: false })
  return { label: `Keep ${named(name)} as a template`, select: [head.id] }
})

/** Puts a template that was kept into the trash. Refused where it is gone. */
export const removeTemplate = command((change, args: { template: TemplateId }) => {
  const template = change.records.get('template', args.template) ?? refuse('gone', 'This template is gone.')
  change.update('template', template.id, { trashed: true })
  return { label: `Remove the template ${named(template.name)}`, select: [] }
})
