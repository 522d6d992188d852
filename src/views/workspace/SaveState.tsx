import { Anchor, Button, CopyButton, Group, Stack, Text, Textarea } from '@mantine/core'
import { useState } from 'react'
import { Modal } from '../app/Modal'
import { type CollectionSession, wordsIn } from '../sync/collection-session'
import { useCalmPart, useSessionHandle } from '../sync/use-session'
import styles from './workspace.module.css'

const changes = (count: number, is: string, are: string) => (count === 1 ? `1 change ${is}` : `${count} changes ${are}`)

const savedIn = ({ saved, notSaved }: CollectionSession) => ({ ...saved, notSaved: [...notSaved] })

/** How far what was done here is saved, and what could not be saved. */
export function SaveState() {
  const [isOpen, setOpen] = useState(false)
  const { state, changes: count, notSaved } = useCalmPart(savedIn)
  return (
    <>
      {notSaved.length > 0 && (
        <button type="button" onClick={() => setOpen(true)}>
          <span className={styles.warn}>{changes(notSaved.length, 'was', 'were')} not saved: look</span>
        </button>
      )}
      <span role="status" className={state === 'waiting' || state === 'signed out' ? styles.warn : undefined}>
        {state === 'saved' && notSaved.length === 0 && 'Everything is saved'}
        {state === 'saved' && notSaved.length > 0 && 'Everything else is saved'}
        {state === 'saving' && 'Saving …'}
        {state === 'waiting' && `No connection: ${changes(count, 'is', 'are')} kept here and will be sent`}
        {state === 'signed out' && (
          <>
            You are signed out: {changes(count, 'is', 'are')} kept here.{' '}
            <Anchor href="/" inherit>
              Sign in again
            </Anchor>
          </>
        )}
      </span>
      <Modal
        opened={isOpen && notSaved.length > 0}
        onClose={() => setOpen(false)}
        title="What could not be saved"
        size="lg"
      >
        <NotSaved changes={notSaved} />
      </Modal>
    </>
  )
}

/** Each change that the server did not take, with why, and its words to be copied. */
function NotSaved({ changes }: { changes: CollectionSession['notSaved'] }) {
  const session = useSessionHandle()
  return (
    <Stack gap="lg">
      <Text>These changes were not taken. They are kept in this browser until you have done something with them.</Text>
      {changes.map(({ change, message }) => {
        const words = wordsIn(change).join('\n')
        return (
          <Stack gap="xs" key={change.id}>
            <Text fw={600}>{change.label}</Text>
            <Text c="ember">{message}</Text>
            {words !== '' && (
              <Textarea aria-label={`Words of: ${change.label}`} value={words} readOnly autosize maxRows={8} />
            )}
            <Group gap="xs">
              {words !== '' && (
                <CopyButton value={words}>
                  {({ copied, copy }) => (
                    <Button variant="default" onClick={copy}>
                      {copied ? 'Copied' : 'Copy the words'}
                    </Button>
                  )}
                </CopyButton>
              )}
              <Button variant="default" onClick={() => session.tryNotSaved(change.id)}>
                Try again
              </Button>
              <Button variant="subtle" color="ember" onClick={() => session.discardNotSaved(change.id)}>
                Throw away
              </Button>
            </Group>
          </Stack>
        )
      })}
    </Stack>
  )
}
