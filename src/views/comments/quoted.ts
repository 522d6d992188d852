import { create } from 'zustand'
import type { TopicId } from '../../core/records/ids'
import { MAX_TITLE } from '../../core/records/text'
import { workspace } from '../workspace/workspace-store'

/** The words of a note on which somebody is about to comment. */
export const useQuoted = create<{ quoted: { topic: TopicId; words: string } | null }>(() => ({ quoted: null }))

/** Opens the comments of a topic, to say something about words of its note. */
export function quoteWords(topic: TopicId, words: string): void {
  const said = words.toWellFormed().replaceAll('\u0000', '').split(/\s+/).filter(Boolean).join(' ')
  useQuoted.setState({ quoted: { topic, words: said.slice(0, MAX_TITLE).toWellFormed() } })
  workspace.openSection('comments')
}

export const quoteNothing = (): void => useQuoted.setState({ quoted: null })
