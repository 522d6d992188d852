import type { TopicId } from '../../core/records/ids'
import type { Records } from '../../core/records/records'
import type { TopicRecord } from '../../core/records/topic'

/** A topic as a part of the page: its heading with what is told below it. */
export interface Section {
  topic: TopicRecord
  /** 0 for the root of the map, or the branch that is shown alone. */
  level: number
  /** Of the first-level branch it lies in, among its siblings: that has the hue. */
  branch: number
}

/** What is being written in: the heading or the note of a topic, and where the person pressed to write there. */
export interface Writing {
  topic: TopicId
  part: 'heading' | 'note'
  caret: { x: number; y: number } | null
  /** Whether the topic was just begun: left empty it is none. */
  isNew?: boolean
}

/** A map, or one branch alone, as one continuous text: everything on it in reading order, folded or not. O(topics). */
export function sectionsOf(records: Records, map: string, only: TopicId | null): Section[] {
  const root = records.root(map)
  const head = records.get('topic', only)
  const heads = head ? [head] : [...(root ? [root] : []), ...records.looseBranches(map)]
  const sections: Section[] = []
  const waiting: Section[] = []
  const push = (topics: readonly TopicRecord[], level: number, branch: number | null) => {
    for (let i = topics.length - 1; i >= 0; i--) waiting.push({ topic: topics[i]!, level, branch: branch ?? i })
  }
  push(heads, 0, 0)
  for (let section = waiting.pop(); section; section = waiting.pop()) {
    sections.push(section)
    const { topic, level, branch } = section
    push(records.children(topic.id), level + 1, level === 0 ? null : branch)
  }
  return sections
}

/**
 * The headings that stand beside the page as its contents: those of the first level, and below each heading on the way to the
 * section in view those that hang on it. Positions among the sections, in order.
 */
export function contentsOf(sections: readonly Section[], inView: number): number[] {
  const shown = new Set<number>()
  let above = Number.POSITIVE_INFINITY
  for (let i = inView; i >= 0; i--) {
    const { level } = sections[i]!
    if (level >= above) continue
    above = level
    for (let j = i + 1; j < sections.length && sections[j]!.level > level; j++)
      if (sections[j]!.level === level + 1) shown.add(j)
  }
  sections.forEach(({ level }, i) => {
    if (level === 0) shown.add(i)
  })
  return [...shown].sort((a, b) => a - b)
}
