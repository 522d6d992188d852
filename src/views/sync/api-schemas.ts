import { z } from 'zod'
import type { CommittedChange, ToldChange } from '../../core/changes/edit'
import { ChangeId, TopicId } from '../../core/records/ids'
import { type MapSnapshot, ToldJob } from '../../core/records/snapshot'

/** A change as the server answers when it has committed it. */
export type AnsweredChange = CommittedChange & Pick<ToldChange, 'maps'>

/** Our own server checked these when it committed them; here only the frame is looked at. */
const isAnswered = (value: unknown): value is AnsweredChange => isTold(value) && Array.isArray(value.edits)
const Committed = z.custom<AnsweredChange>(isAnswered)

/** A change of which the edits may be left out. */
const isTold = (value: unknown): value is ToldChange =>
  typeof value === 'object' && value !== null && 'number' in value && 'edits' in value && 'maps' in value
export const Told = z.custom<ToldChange>(isTold)

export const CommitAnswer = z.object({
  results: z.array(
    z.discriminatedUnion('ok', [
      z.object({ ok: z.literal(true), change: Committed }),
      z.object({ ok: z.literal(false), id: ChangeId, problem: z.object({ code: z.string(), message: z.string() }) }),
    ]),
  ),
})

/** A map as our own server sends it. Checking each of thousands of topics again would only make opening slow. */
const isSnapshot = (value: unknown): value is MapSnapshot =>
  typeof value === 'object' &&
  value !== null &&
  'map' in value &&
  'records' in value &&
  typeof value.records === 'object'
export const HeldSnapshot = z.custom<MapSnapshot>(isSnapshot)

/** A job that has come to an end, with what came of it. */
export const JobAnswer = ToldJob.extend({ result: z.unknown() })
export const Cancelled = z.object({ ok: z.literal(true) })

export const CommandAnswer = z.object({ change: Told, select: z.array(TopicId), report: z.unknown() })
