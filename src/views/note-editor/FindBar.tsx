import { ActionIcon, Button, CloseButton, TextInput } from '@mantine/core'
import { IconChevronDown, IconChevronUp } from '@tabler/icons-react'
import type { Editor } from '@tiptap/react'
import { useEffect, useState } from 'react'
import { findKey, placesOf } from './find-words'
import styles from './note-editor.module.css'

/** Finds words in a note, and puts others in their place: at one, or at all. */
export function FindBar({ editor, editable, close }: { editor: Editor; editable: boolean; close(): void }) {
  const [words, setWords] = useState('')
  const [others, setOthers] = useState('')
  const [at, setAt] = useState(0)
  const [, setChanges] = useState(0)
  const places = placesOf(editor.state.doc, words)
  const here = places.length === 0 ? 0 : Math.min(at, places.length - 1)
  useEffect(() => {
    editor.view.dispatch(editor.state.tr.setMeta(findKey, { words, at: here }))
    document.querySelector('.found-now')?.scrollIntoView({ block: 'nearest' })
  }, [editor, words, here])
  useEffect(
    () => () => {
      if (!editor.isDestroyed) editor.view.dispatch(editor.state.tr.setMeta(findKey, { words: '', at: 0 }))
    },
    [editor],
  )
  const step = (by: number) => places.length > 0 && setAt((here + by + places.length) % places.length)
  /** From the last place to the first, so that those before keep theirs. */
  const replace = (chosen: readonly { from: number; to: number }[]) => {
    const { tr } = editor.state
    for (const { from, to } of [...chosen].reverse()) tr.insertText(others, from, to)
    editor.view.dispatch(tr)
    setChanges((count) => count + 1)
  }
  return (
    // biome-ignore lint/a11y/useSemanticElements: search is the role, and no element of HTML has it everywhere yet
    <div className={styles.find} role="search">
      <TextInput
        size="xs"
        aria-label="Find in the note"
        placeholder="Find"
        autoFocus
        value={words}
        onChange={(event) => {
          setWords(event.currentTarget.value)
          setAt(0)
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') step(event.shiftKey ? -1 : 1)
          else if (event.key === 'Escape') {
            event.stopPropagation()
            close()
          }
        }}
      />
      <span className={styles.count} aria-live="polite">
        {words === '' ? '' : places.length === 0 ? 'nowhere' : `${here + 1} of ${places.length}`}
      </span>
      <ActionIcon variant="subtle" color="gray" size="sm" aria-label="The place before" onClick={() => step(-1)}>
        <IconChevronUp size={14} />
      </ActionIcon>
      <ActionIcon variant="subtle" color="gray" size="sm" aria-label="The next place" onClick={() => step(1)}>
        <IconChevronDown size={14} />
      </ActionIcon>
      <CloseButton size="sm" aria-label="End finding" onClick={close} />
      {editable && (
        <>
          <TextInput
            size="xs"
            aria-label="Put in its place"
            placeholder="Replace by"
            value={others}
            onChange={(event) => setOthers(event.currentTarget.value)}
          />
          <Button
            size="compact-xs"
            variant="default"
            disabled={places.length === 0}
            onClick={() => replace(places.slice(here, here + 1))}
          >
            Replace
          </Button>
          <Button size="compact-xs" variant="default" disabled={places.length === 0} onClick={() => replace(places)}>
            All
          </Button>
        </>
      )}
    </div>
  )
}
