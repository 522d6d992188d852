import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import { TemplateId } from '../records/ids'
import type { Records } from '../records/records'
import { MOST_TEMPLATE_LINES, type TemplateLine } from '../records/template'
import type { TopicRecord } from '../records/topic'
import { branch, levelOf } from '../tree/walk'
import { Draft, type Making, named, type Outcome } from './command'

const DAY_MS = 86_400_000
const dayOf = ({ dates }: TopicRecord): number | null => (dates ? Date.parse(dates.start) / DAY_MS : null)

/**
 * Keeps what hangs below a topic as a template under a name, with notes and web links; dates become days after the
 * first of them. A template of the same name gives way.
 */
export function saveTemplate(records: Records, args: { topic: TopicId; name: string }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const head = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const name = args.name.trim()
  if (name === '') refuse('invalid', 'A template needs a name.')
  const topics = [...branch(records, head)].slice(1)
  if (topics.length === 0) refuse('invalid', 'There is nothing below this topic to keep as a template.')
  if (topics.length > MOST_TEMPLATE_LINES)
    refuse('invalid', `A template has at most ${MOST_TEMPLATE_LINES} topics; this branch has ${topics.length}.`)
  const first = Math.min(...topics.map((topic) => dayOf(topic) ?? Number.POSITIVE_INFINITY))
  const above = levelOf(records, head) + 1
  const lines = topics.map((topic): TemplateLine => {
    const day = dayOf(topic)
    return {
      level: levelOf(records, topic) - above,
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
  const known = [...records.all('template')].find((template) => !template.trashed && template.name === name)
  if (known) draft.update('template', known.id, { ...shape, lines })
  else draft.create('template', { id: draft.newId(TemplateId), name, ...shape, lines, trashed: false })
  return draft.outcome(`Keep ${named(name)} as a template`, [head.id])
}

export function removeTemplate(records: Records, args: { template: TemplateId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const template = records.get('template', args.template) ?? refuse('gone', 'This template is gone.')
  draft.update('template', template.id, { trashed: true })
  return draft.outcome(`Remove the template ${named(template.name)}`)
}
