import { Anchor } from '@mantine/core'
import { type Editor, useEditorState } from '@tiptap/react'
import { readOwnAddress } from '../../core/formats/own-address'
import type { MapId, TopicId } from '../../core/records/ids'
import { readFile } from '../reading/read-file'
import { useSessionHandle } from '../sync/use-session'
import { useWorkspace, workspace } from '../workspace/workspace-store'
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
  const { address, words } = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      address: now.isActive('link') ? String(now.getAttributes('link').href ?? '') : '',
      words: now.state.doc.textBetween(0, now.state.doc.content.size, ' ', ' ').match(/\S+/g)?.length ?? 0,
    }),
  })
  const own = readOwnAddress(address)
  const name =
    own?.kind === 'topic'
      ? session.nameOf(own.id)?.text
      : own?.kind === 'map'
        ? session.titleOf(own.id)
        : own && session.records.get('file', own.id)?.name
  const go = () => {
    const { active } = useWorkspace.getState()
    if (own?.kind === 'map') workspace.go(active, own.id, null)
    else if (own?.kind === 'file') readFile(session, topic, own.id, own.page)
    else if (own) {
      const map = session.nameOf(own.id)?.map
      if (map) workspace.go(active, map as MapId, own.id)
    }
  }
  if (!countsWords && address === '') return null
  return (
    <div className={styles.foot}>
      {own && (
        <Anchor component="button" type="button" size="sm" className={styles.leads} onClick={go}>
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
