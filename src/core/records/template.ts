import { z } from 'zod'
import { TemplateId } from './ids'
import { defineKind } from './kind'
import { LayoutKind, NumberingScheme } from './layout'
import { MAX_NOTE_TEXT, MAX_TOPIC_TEXT, storedText } from './text'

/** One topic of a template. The lines stand in reading order; `level` says how deep each hangs. */
export const TemplateLine = z.strictObject({
  level: z.number().int().min(0).max(500),
  text: storedText(MAX_TOPIC_TEXT),
  /** CommonMark. Empty where there is none. */
  note: storedText(MAX_NOTE_TEXT),
  links: z.array(z.strictObject({ address: storedText(2_000), title: storedText(500) })).max(50),
  /** Days after the day on which the template is used; null for a topic without a date. */
  day: z.number().int().min(0).max(100_000).nullable(),
})
export type TemplateLine = z.infer<typeof TemplateLine>

/** Most topics of a template. */
export const MOST_TEMPLATE_LINES = 2_000

/** A map or a branch kept as a beginning for others. */
export const TemplateRecord = z.strictObject({
  id: TemplateId,
  name: storedText(200).min(1),
  layout: LayoutKind,
  numbering: NumberingScheme.nullable(),
  /** What hangs below the root, without the root itself. */
  lines: z.array(TemplateLine).min(1).max(MOST_TEMPLATE_LINES),
  trashed: z.boolean(),
})
export type TemplateRecord = z.infer<typeof TemplateRecord>

export const templateKind = defineKind(TemplateRecord, { seenEverywhere: true })
