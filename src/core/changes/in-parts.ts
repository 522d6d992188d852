import { kinds } from '../records/kinds'
import { parentOf } from '../records/place'
import { endsOf } from '../records/reference-path'
import type { Edit } from './edit'

const keyOf = ({ kind, id }: { kind: string; id: string }): string => `${kind} ${id}`

/**
 * Cuts a large change into parts that can be committed one after the other: each names only what is there or comes with it or
 * before it, and leaves nothing behind that could not stay so, such as a map without its root. Together they do what the
 * change does, in another order. A part has at most `most` edits, but where more of them cannot be without each other.
 * Edits that alter what was there come last, in one part with all they need. O(edits and their references).
 */
export function inParts(edits: readonly Edit[], most: number): Edit[][] {
  if (edits.length <= most) return [[...edits]]
  const parts: Edit[][] = [[]]
  for (const group of inOrder(edits)) {
    if (parts.at(-1)!.length + group.length > most && parts.at(-1)!.length > 0) parts.push([])
    parts.at(-1)!.push(...group.map((i) => edits[i]!))
  }
  return parts
}

/** For each edit, by its position, those that have to be there before it or with it. */
function needsOf(edits: readonly Edit[]): number[][] {
  const made = new Map<string, number>()
  for (const [i, edit] of edits.entries()) if (edit.before === null) made.set(keyOf(edit), i)
  const needs = edits.map((edit) => {
    const needed: number[] = []
    for (const reference of kinds[edit.kind].references)
      for (const end of endsOf(edit.after, reference)) {
        const at = made.get(keyOf(end))
        if (at !== undefined) needed.push(at)
      }
    return needed
  })
  const altering: number[] = []
  for (const [i, edit] of edits.entries()) {
    if (edit.before !== null) altering.push(i)
    // A map cannot be without its root, nor what somebody carries without who carries it.
    else if (
      edit.kind === 'topic' &&
      edit.after.place &&
      parentOf(edit.after as { place: typeof edit.after.place }) === null
    )
      needs[made.get(keyOf({ kind: 'map', id: edit.after.place.map })) ?? i]!.push(i)
    for (const reference of kinds[edit.kind].references)
      if (reference.hold === 'carries')
        for (const end of endsOf(edit.after, reference)) {
          const carried = made.get(keyOf(end))
          if (carried !== undefined && end.kind !== 'file') needs[carried]!.push(i)
        }
  }
  // What alters what was there stays together: how its edits depend on one another only the records would tell.
  altering.forEach((i, n) => {
    needs[i]!.push(altering[(n + 1) % altering.length]!)
  })
  return needs
}

/**
 * Groups of edits that need each other, each after what it needs: the strongly connected components in the order in which
 * they are found (Tarjan, "Depth-first search and linear graph algorithms", 1972), without recursion. What only alters
 * comes last.
 */
function inOrder(edits: readonly Edit[]): number[][] {
  const needs = needsOf(edits)
  const groups: number[][] = []
  const index = new Int32Array(edits.length).fill(-1)
  const low = new Int32Array(edits.length)
  const isOpen = new Uint8Array(edits.length)
  const open: number[] = []
  let count = 0
  const enter = (i: number) => {
    index[i] = low[i] = count++
    open.push(i)
    isOpen[i] = 1
    return { i, next: 0 }
  }
  const close = (i: number) => {
    if (low[i] !== index[i]) return
    const group: number[] = []
    for (let member = -1; member !== i; ) {
      member = open.pop()!
      isOpen[member] = 0
      group.push(member)
    }
    groups.push(group.sort((a, b) => a - b))
  }
  const starts = [...edits.keys()].sort(
    (a, b) => Number(edits[a]!.before !== null) - Number(edits[b]!.before !== null) || a - b,
  )
  for (const start of starts) {
    if (index[start] !== -1) continue
    const way = [enter(start)]
    while (way.length > 0) {
      const at = way.at(-1)!
      const needed = needs[at.i]![at.next++]
      if (needed === undefined) {
        way.pop()
        close(at.i)
        const below = way.at(-1)
        if (below) low[below.i] = Math.min(low[below.i]!, low[at.i]!)
      } else if (index[needed] === -1) way.push(enter(needed))
      else if (isOpen[needed]) low[at.i] = Math.min(low[at.i]!, index[needed]!)
    }
  }
  return groups
}
