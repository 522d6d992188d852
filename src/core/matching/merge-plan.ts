import type { MapId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { normalText } from './normal-text'

export type MergeWay = 'beside' | 'combined'

/** What happens to one topic of a source: it is joined with a topic of the target, or a copy of it is added. */
export type Decision =
  | { act: 'join'; source: TopicId; into: TopicId; why: 'root' | 'same text' }
  | { act: 'add'; source: TopicId; below: TopicId | { copyOf: TopicId } }

/** What a merge would do, decision by decision, parents before their children. Data that can be shown and changed. */
export interface MergePlan {
  target: MapId
  sources: MapId[]
  way: MergeWay
  decisions: Decision[]
}

/** Target topics below a topic, by their text as it is compared; each is joined at most once for each source. */
class Candidates {
  private readonly byParent = new Map<string, Map<string, TopicRecord[]>>()

  constructor(private readonly records: Records) {}

  take(parent: TopicId, text: string, taken: Set<string>): TopicRecord | undefined {
    let texts = this.byParent.get(parent)
    if (!texts) {
      texts = new Map()
      for (const child of this.records.children(parent)) {
        const key = normalText(child.text)
        texts.set(key, [...(texts.get(key) ?? []), child])
      }
      this.byParent.set(parent, texts)
    }
    const found = texts.get(text)?.find((topic) => !taken.has(topic.id))
    if (found) taken.add(found.id)
    return found
  }
}

/**
 * Plans the merge of other maps into a map. Side by side, every source becomes a branch at the root. Combined, roots
 * are joined, and below joined topics those whose texts agree are joined in turn, one to one; all others are added
 * below the topic that their parent went to. Linear in the topics. Throws a RangeError where a map is not held.
 */
export function planMerge(records: Records, target: MapId, sources: readonly MapId[], way: MergeWay): MergePlan {
  const targetRoot = rootOf(records, target)
  const candidates = new Candidates(records)
  const decisions: Decision[] = []
  for (const source of sources) {
    const sourceRoot = rootOf(records, source)
    const taken = new Set<string>()
    const waiting: { topic: TopicRecord; decision: Decision }[] = []
    const decide = (topic: TopicRecord, decision: Decision) => {
      decisions.push(decision)
      waiting.push({ topic, decision })
    }
    if (way === 'combined') decide(sourceRoot, { act: 'join', source: sourceRoot.id, into: targetRoot.id, why: 'root' })
    else decide(sourceRoot, { act: 'add', source: sourceRoot.id, below: targetRoot.id })
    for (const head of records.looseBranches(source))
      decide(head, { act: 'add', source: head.id, below: targetRoot.id })
    for (const { topic, decision } of waiting) {
      for (const child of records.children(topic.id)) {
        const text = normalText(child.text)
        const into = decision.act === 'join' && text !== '' ? candidates.take(decision.into, text, taken) : undefined
        if (into) decide(child, { act: 'join', source: child.id, into: into.id, why: 'same text' })
        else
          decide(child, {
            act: 'add',
            source: child.id,
            below: decision.act === 'join' ? decision.into : { copyOf: topic.id },
          })
      }
    }
  }
  return { target, sources: [...sources], way, decisions }
}

function rootOf(records: Records, map: MapId): TopicRecord {
  const root = records.root(map)
  if (!root) throw new RangeError(`The map ${map} is not among the records.`)
  return root
}
