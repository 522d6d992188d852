import { dequal } from 'dequal/lite'
import { MOST_BADGES, MOST_TAGS, type TopicRecord } from '../records/topic'
import type { Settled } from './common-origin'
import { CHOSEN_FIELDS, type ChosenField } from './decisions'

/** The part of two looks that both set, each to something else. */
const looksDiffer = (own: TopicRecord['look'], other: TopicRecord['look']): boolean =>
  Object.entries(other ?? {}).some(
    ([property, value]) =>
      value !== undefined &&
      own?.[property as keyof typeof own] !== undefined &&
      !dequal(own[property as keyof typeof own], value),
  )

/** What two topics that become one both say, each in its own way; what only one of them says is no conflict. */
function conflictsOf(own: TopicRecord, other: TopicRecord): ChosenField[] {
  return CHOSEN_FIELDS.filter((field) => {
    if (field === 'look') return looksDiffer(own.look, other.look) || looksDiffer(own.branchLook, other.branchLook)
    return own[field] !== null && other[field] !== null && !dequal(own[field], other[field])
  })
}

/** Whether a field is in a list of what is settled, if there is one. */
export const isIn = (fields: readonly string[] | undefined, field: string): boolean => fields?.includes(field) ?? false

/** Conflicts that are a person's to decide: without what only one side has changed since it was copied from the other. */
export const openConflicts = (own: TopicRecord, other: TopicRecord, settled: Settled | null): ChosenField[] =>
  conflictsOf(own, other).filter((field) => !isIn(settled?.takes, field) && !isIn(settled?.keeps, field))

/**
 * What a topic says when another one is joined into it: tags and badges of both, looks together, what only the other one says, and
 * of what both say what is in `takes`. What is in `keeps` stays as it is, also where it says nothing. Its note, and what hangs on it, are not looked at.
 */
export function joinedFields(
  own: TopicRecord,
  other: TopicRecord,
  takes: readonly ChosenField[],
  keeps: Settled['keeps'] = [],
): Partial<TopicRecord> {
  const taken = new Set(takes)
  return {
    tags: [...new Set([...own.tags, ...other.tags])].slice(0, MOST_TAGS),
    badges: [...new Set([...own.badges, ...other.badges])].slice(0, MOST_BADGES),
    look: bothLooks(own.look, other.look, taken.has('look')),
    branchLook: bothLooks(own.branchLook, other.branchLook, taken.has('look')),
    text: taken.has('text') ? other.text : own.text,
    dates: taken.has('dates') ? other.dates : keeps.includes('dates') ? own.dates : (own.dates ?? other.dates),
    task: taken.has('task') ? other.task : keeps.includes('task') ? own.task : (own.task ?? other.task),
    work: own.work || other.work ? { ...other.work, ...own.work } : null,
    picture: taken.has('picture') ? other.picture : (own.picture ?? other.picture),
    opensMap: taken.has('opensMap') ? other.opensMap : (own.opensMap ?? other.opensMap),
    number: taken.has('number') ? other.number : (own.number ?? other.number),
  }
}

function bothLooks<L extends TopicRecord['look']>(own: L, other: L, othersFirst: boolean): L {
  if (!own || !other) return own ?? other
  return othersFirst ? { ...own, ...other } : { ...other, ...own }
}
