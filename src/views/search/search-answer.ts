import { z } from 'zod'

/** Kinds of what is found, in the order in which they are told. */
export const KINDS = ['map', 'topic', 'enclosure', 'tag', 'note', 'comment', 'weblink', 'file', 'file text'] as const
export type Kind = (typeof KINDS)[number]

export const KIND_NAMES: Record<Kind, string> = {
  map: 'Maps',
  topic: 'Topics',
  enclosure: 'Enclosures',
  tag: 'Tags',
  note: 'Notes',
  comment: 'Comments',
  weblink: 'Web links',
  file: 'Files',
  'file text': 'Inside files',
}

const FoundRow = z.object({
  kind: z.enum(KINDS),
  id: z.string(),
  topic: z.string().nullable(),
  topicText: z.string().nullable(),
  map: z.string().nullable(),
  mapTitle: z.string().nullable(),
  text: z.string(),
  /** Of what stands in a file the page, and the name of the file. */
  page: z.number().nullable(),
  file: z.string().nullable(),
  /** The topics above it, the root first. */
  way: z.array(z.string()),
})
export type FoundRow = z.infer<typeof FoundRow>

/** What searching answers; see server/search. */
export const SearchAnswer = z.object({ rows: z.array(FoundRow), words: z.array(z.string()), isPartial: z.boolean() })
