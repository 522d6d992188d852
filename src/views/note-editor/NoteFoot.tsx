import { Anchor } from '@mantine/core'
import { type Editor, useEditorState } from '@tiptap/react'
import { useCallback } from 'react'
import { readOwnAddress } from '../../core/formats/own-address'
import type { TopicId } from '../../core/records/ids'
import { countWords } from '../../core/text/word-count'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useSessionHandle } from '../sync/use-session'
import { AboutWords } from './AboutWords'
import { followOwn } from './follow'
import styles from './note-editor.module.css'

interface Props {
  editor: Editor
  topic: TopicId
  /** In the topic sheet the section tells it already. */
  countsWords: boolean
}

/** Below a note: where the link leads in which one writes, and how many words there are. */
export function NoteFoot({ editor, topic, countsWords }: Props) {
  const session = useSessionHandle()
  const mayComment = useCalmPart(
    useCallback((now: CollectionSession) => now.mayCommentOn(now.nameOf(topic)?.map ?? ''), [topic]),
  )
  const { address, words, selected } = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      address: now.isActive('link') ? String(now.getAttributes('link').href ?? '') : '',
      selected: now.state.doc.textBetween(now.state.selection.from, now.state.selection.to, ' ', ' ').slice(0, 2_000),
      words: countWords(now.state.doc.textBetween(0, now.state.doc.content.size, ' ', ' ')),
    }),
  })
  const own = readOwnAddress(address)
  const name =
    own?.kind === 'topic'
      ? session.nameOf(own.id)?.text
      : own?.kind === 'map'
        ? session.titleOf(own.id)
        : own && session.records.get('file', own.id)?.name
  if (!countsWords && address === '' && selected === '') return null
  return (
    <div className={styles.foot}>
      {selected !== '' && <AboutWords topic={topic} words={selected} mayComment={mayComment} />}
      {own && (
        <Anchor
          component="button"
          type="button"
          size="sm"
          className={styles.leads}
          // The writing does not end while it is pressed: what stands here would change under the pointer.
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => void followOwn(session, address, topic)}
        >
          Go to {name || 'where this leads'}
        </Anchor>
      )}
      {!own && /^(https?:|mailto:)/i.test(address) && (
        <Anchor size="sm" className={styles.leads} href={address} target="_blank" rel="noopener noreferrer">
          Open {address.replace(/^https?:\/\//i, '')}
        </Anchor>
      )}
      {countsWords && <span className={styles.count}>{words === 1 ? '1 word' : `${words} words`}</span>}
    </div>
  )
}
