import type { z } from 'zod'

/**
 * How a field leads to another record:
 * - `inside`: this record is a part of the far one, goes into the trash with it, and moves with it
 * - `carries`: the far one is a part of this record, and is copied with it
 * - `names`: the two live apart
 */
type Hold = 'inside' | 'carries' | 'names'

/** What else holds of a reference, where it is not as usual. */
interface Extras {
  /**
   * Where the one is drawn with the other: `here` the far record shows at this one (a note at its topic), `there` this
   * one shows at the far one (a web link at its topic). What changes then, changes there too.
   */
  seen: 'here' | 'there' | 'nowhere'
  /**
   * What happens when the far end goes into the trash: `stays`, the field is left as it is, and whoever reads it looks;
   * `refused`, it cannot go as long as it is named; `cleared`, the change in which it goes names another one, or nothing.
   */
  whenGone: 'stays' | 'refused' | 'cleared'
  /** Whether a copy of the far end takes a copy of this record along, where this one is inside of it. */
  copied: boolean
}

/** One field by which records of a kind lead to others. Everything that follows references reads this. */
export interface Reference extends Extras {
  /** The field; dots lead inside of it, and `*` stands for each element of a list: `place.parent`, `tags.*`. */
  readonly path: string
  /** The kind that it leads to; null where the value is a link end, which tells its kind itself. */
  readonly to: string | null
  readonly hold: Hold
  /** What the far end is called where it is missing: "The map of this topic". */
  readonly called: string
}

export const inside = (path: string, to: string, called: string, extras: Partial<Extras> = {}): Reference => ({
  path,
  to,
  called,
  hold: 'inside',
  seen: 'there',
  whenGone: 'stays',
  copied: true,
  ...extras,
})

export const carries = (path: string, to: string, called: string): Reference => ({
  path,
  to,
  called,
  hold: 'carries',
  seen: 'here',
  whenGone: 'stays',
  copied: true,
})

export const names = (path: string, to: string | null, called: string, extras: Partial<Extras> = {}): Reference => ({
  path,
  to,
  called,
  hold: 'names',
  seen: 'nowhere',
  whenGone: 'stays',
  copied: true,
  ...extras,
})

/**
 * How what several people write into one field is joined, instead of the last one winning; see `changes/join.ts`.
 * - `elements`: a list of which each brought some elements in or out
 * - `properties`: values set one by one
 * - `paragraphs`: a text as Markdown, line by line
 * - `lines`: a plain text, line by line
 */
export type Joining = 'elements' | 'properties' | 'paragraphs' | 'lines'

/** All that is said of a kind of record, once. */
export interface KindDefinition {
  readonly schema: z.ZodObject & z.ZodType<{ id: string; trashed: boolean }>
  readonly references: readonly Reference[]
  /** Fields that are joined; all others are the last writer's. */
  readonly joins: Readonly<Record<string, Joining>>
  /** Whether a change of one is seen on every map of its collection. */
  readonly seenEverywhere: boolean
}

/** The definition of a kind, with what is not said taken as usual. */
export const defineKind = <Schema extends KindDefinition['schema']>(
  schema: Schema,
  rest: Partial<Omit<KindDefinition, 'schema'>> = {},
) => ({ schema, references: [], joins: {}, seenEverywhere: false, ...rest }) satisfies KindDefinition
