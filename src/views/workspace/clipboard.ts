import type { ClipboardEvent } from 'react'
import { z } from 'zod'
import { named } from '../../core/commands/command'
import { duplicateBranches } from '../../core/commands/duplicate-branches'
import { hangItems } from '../../core/commands/hang-items'
import { headsOnly, moveTopics } from '../../core/commands/move-topics'
import { readIndentedText, writeIndentedText } from '../../core/formats/indented-text'
import type { OutlineItem } from '../../core/formats/outline'
import { outlineOf } from '../../core/formats/outline-of'
import { TopicId } from '../../core/records/ids'
import { isRoot } from '../../core/records/place'
import type { Situation } from '../acts/act'
import { tell } from '../app/api'
import { type Pane, useWorkspace, workspace } from './workspace-store'

/** Our own branches on the clipboard, beside the clean list that every editor takes. */
const BRANCHES_TYPE = 'application/x-folvet-branches'
const Branches = z.object({ collection: z.string(), topics: z.array(TopicId).min(1) })

const headsOf = ({ session, topics }: Situation) =>
  headsOnly(
    session.records,
    topics.map(({ id }) => id),
  )

/** The selected branches as a clean indented list. */
const listOf = (situation: Situation): string =>
  writeIndentedText(headsOf(situation).map((head) => outlineOf(situation.session.records, head)))

/** Remembers the selected branches for pasting. What is cut stays where it is until then, so that nothing gets lost. */
function carry(situation: Situation, cut: boolean): void {
  const heads = headsOf(situation)
  const moves = cut && !heads.some(isRoot)
  if (moves)
    tell(`${heads.length === 1 ? named(heads[0]!.text) : `${heads.length} branches`} will move to where you paste.`)
  else if (cut) tell('The root of a map stays where it is: it was copied.')
  workspace.carry({ topics: heads.map(({ id }) => id), cut: moves })
}

/** The same from a menu: the list goes to the clipboard too, where the browser lets it. */
export function carryFromMenu(situation: Situation, cut: boolean): void {
  carry(situation, cut)
  void navigator.clipboard?.writeText(listOf(situation)).catch(() => {})
}

/**
 * Hangs branches that were copied or cut here onto a topic, with all that belongs to them: copies, or, the first time
 * after cutting, the branches themselves. False where they are not held, so that their text has to do.
 */
export function pasteBranches({ session, index }: Situation, topics: readonly TopicId[], onto: TopicId): boolean {
  if (topics.some((id) => session.records.get('topic', id) === undefined)) return false
  const { carried } = useWorkspace.getState()
  const cut = carried?.cut === true && topics.every((id) => carried.topics.includes(id))
  const select = session.run((records, newIds) =>
    cut
      ? moveTopics(records, { topics: [...topics], parent: onto, after: 'last', side: null }, newIds)
      : duplicateBranches(records, { topics: [...topics], onto }, newIds),
  )
  if (select && cut) workspace.carry({ topics: [...topics], cut: false })
  if (select) workspace.select(index, select)
  return true
}

interface Contents {
  html: string
  text: string
}

/**
 * What was copied or dragged from elsewhere as an outline: structure where there is some, else line by line. What reads it
 * is fetched when it is first needed; where that cannot be had, lines have to do, so that nothing gets lost.
 */
export async function itemsOf({ html, text }: Contents): Promise<readonly OutlineItem[]> {
  try {
    // Our own lists come as plain text; HTML is read only where it keeps more than the plain text does.
    const structured = html === '' ? null : (await import('../../core/formats/html-outline')).readHtml(html)
    return structured ?? (await import('../../core/formats/read-text')).readText(text).items
  } catch {
    return readIndentedText(text)
  }
}

/** Hangs what was copied or dragged from elsewhere onto a topic. */
export async function takeOver({ session, index }: Situation, onto: TopicId, contents: Contents): Promise<void> {
  const items = await itemsOf(contents)
  if (items.length === 0) return
  const select = session.run((records, newIds) => hangItems(records, { topic: onto, items, act: 'Paste' }, newIds))
  if (select) workspace.select(index, select)
}

export const contentsOf = (from: DataTransfer) => ({
  html: from.getData('text/html'),
  text: from.getData('text/plain'),
})

function ownBranches(event: ClipboardEvent, collection: string): readonly TopicId[] | null {
  const data = event.clipboardData.getData(BRANCHES_TYPE)
  if (data === '') return null
  const branches = z
    .string()
    .transform((text, context) => {
      try {
        return JSON.parse(text) as unknown
      } catch {
        context.addIssue({ code: 'custom', message: 'This is no JSON.' })
        return z.NEVER
      }
    })
    .pipe(Branches)
    .safeParse(data).data
  return branches?.collection === collection ? branches.topics : null
}

/**
 * Copying and cutting the selected branches, as a clean list and as our own; and pasting onto the last one, or onto the
 * root where none is selected. A text that is being written has the clipboard for itself.
 */
export const clipboardHandlers = (situation: () => Situation, pane: Pane) => {
  const take = (event: ClipboardEvent, cut: boolean) => {
    const now = situation()
    if (pane.editing || now.topics.length === 0) return
    event.preventDefault()
    event.clipboardData.setData('text/plain', listOf(now))
    const branches: z.input<typeof Branches> = {
      collection: now.session.id,
      topics: headsOf(now).map(({ id }) => id),
    }
    event.clipboardData.setData(BRANCHES_TYPE, JSON.stringify(branches))
    carry(now, cut && now.session.mayEdit)
  }
  return {
    onCopy: (event: ClipboardEvent) => take(event, false),
    onCut: (event: ClipboardEvent) => take(event, true),
    onPaste(event: ClipboardEvent): void {
      if (pane.editing) return
      const now = situation()
      const { session, topics } = now
      const onto = topics.at(-1) ?? session.records.root(pane.map)
      if (!onto || !session.mayEdit) return
      event.preventDefault()
      const own = ownBranches(event, session.id)
      if (own && pasteBranches(now, own, onto.id)) return
      const files = [...event.clipboardData.files]
      if (files.length > 0 && event.clipboardData.getData('text/plain') === '')
        void import('../pictures/send-picture').then(({ takeFiles }) => takeFiles(session, files, { topic: onto.id }))
      else void takeOver(now, onto.id, contentsOf(event.clipboardData))
    },
  }
}
