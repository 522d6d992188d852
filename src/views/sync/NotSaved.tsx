import { Button, Stack, Text } from '@mantine/core'
import { Suspense, useState } from 'react'
import { TopicId } from '../../core/records/ids'
import { cutText, MAX_TOPIC_TEXT } from '../../core/records/text'
import { late } from '../app/late'
import { Modal } from '../app/Modal'
import type { CollectionSession } from '../sync/collection-session'
import { useSessionHandle } from '../sync/use-session'
import { awaitField } from '../workspace/awaited-field'
import { SetAside, wordsIn } from './SetAside'

const FindDialog = late(() => import('../dialogs/FindDialog').then((module) => ({ default: module.FindDialog })))

/** Letters of the first line by which longer words are called, where they become a topic with a note. */
const LONGEST_NAME = 200

/** Each change that the server did not take, with why, and its words to be copied, or put on a topic. */
export default function NotSaved({ changes, onClose }: { changes: CollectionSession['notSaved']; onClose(): void }) {
  const session = useSessionHandle()
  const [placing, setPlacing] = useState<{ id: string; words: string } | null>(null)
  /** Hangs the words on a topic, as one of their own; given up here only when that has been done. */
  const putOn = async (topic: string) => {
    const at = { topic: TopicId.parse(topic) }
    const { words } = placing!
    const [first = ''] = words.split('\n', 1)
    const isShort = words === first && words.length <= MAX_TOPIC_TEXT
    const text = isShort ? words : cutText(first, LONGEST_NAME)
    const given = { at, text, note: isShort ? '' : words, quote: '', address: '' }
    const answer = await session.server.command('keep-clipping', given)
    if (answer) session.discardNotSaved(placing!.id)
    setPlacing(null)
  }
  return (
    <Modal opened onClose={onClose} title="What could not be saved" size="lg">
      <Stack gap="lg">
        {placing && (
          <Suspense>
            <FindDialog
              collection={session.id}
              title="Below which topic?"
              kinds={['topic']}
              onTake={({ id }) => void putOn(id)}
              onClose={() => setPlacing(null)}
            />
          </Suspense>
        )}
        <Text>
          These changes were not taken. They are kept in this browser until you have done something with them.
        </Text>
        {changes.map((aside) => {
          const { change } = aside
          const words = wordsIn(change)
          return (
            <SetAside key={change.id} aside={aside} throwAway={() => session.discardNotSaved(change.id)}>
              {words !== '' && session.mayEdit && (
                <Button
                  variant="default"
                  onClick={() => {
                    awaitField('field')
                    setPlacing({ id: change.id, words })
                  }}
                >
                  Put it on a topic …
                </Button>
              )}
              <Button variant="default" onClick={() => session.tryNotSaved(change.id)}>
                Try again
              </Button>
            </SetAside>
          )
        })}
      </Stack>
    </Modal>
  )
}
