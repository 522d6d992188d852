import { Button } from '@mantine/core'
import { IconLink, IconMessage } from '@tabler/icons-react'
import { writeOwnAddress } from '../../core/formats/own-address'
import type { TopicId } from '../../core/records/ids'
import { passageOf } from '../../core/text/passage'
import { tell } from '../app/api'
import { quoteWords } from '../comments/quoted'
import styles from './note-editor.module.css'

interface Props {
  topic: TopicId
  /** What is selected in its note. */
  words: string
  mayComment: boolean
}

/** What can be done with words that are selected in a note, also by who may only read it. */
export function AboutWords({ topic, words, mayComment }: Props) {
  const passage = passageOf(words)
  if (passage === '') return null
  // The selection stays while one of these is pressed.
  const hold = (event: { preventDefault(): void }) => event.preventDefault()
  return (
    <div className={styles.about}>
      <Button
        size="compact-xs"
        variant="subtle"
        leftSection={<IconLink size={14} aria-hidden />}
        onMouseDown={hold}
        onClick={() => void copyLink(writeOwnAddress({ kind: 'topic', id: topic, passage }), words)}
      >
        Copy a link to these words
      </Button>
      {mayComment && (
        <Button
          size="compact-xs"
          variant="subtle"
          leftSection={<IconMessage size={14} aria-hidden />}
          onMouseDown={hold}
          onClick={() => quoteWords(topic, words)}
        >
          Comment on them
        </Button>
      )}
    </div>
  )
}

/** Puts a link onto the clipboard, as it is pasted into a note and as it is written in one. */
async function copyLink(address: string, words: string): Promise<void> {
  const name = words.split(/\s+/).filter(Boolean).join(' ').slice(0, 60)
  const anchor = document.createElement('a')
  anchor.href = address
  anchor.textContent = name
  const asIs = (type: string, text: string) => new Blob([text], { type })
  try {
    await navigator.clipboard.write([
      new ClipboardItem({
        'text/html': asIs('text/html', anchor.outerHTML),
        'text/plain': asIs('text/plain', address),
      }),
    ])
    tell('The link is copied. Paste it into a note.')
  } catch {
    tell(address)
  }
}
