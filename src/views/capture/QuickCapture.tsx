import { Button, Group, Stack, Text, Textarea } from '@mantine/core'
import { useState } from 'react'
import { create } from 'zustand'
import { tell } from '../app/api'
import { useHalfWritten } from '../app/half-written'
import { Modal } from '../app/Modal'
import { useSession } from '../sync/use-session'

/** Whether somebody is writing down an idea. */
export const useCapture = create<{ isOpen: boolean }>(() => ({ isOpen: false }))

/** Writes down an idea wherever one is: it waits in the drawer of the collection until it is placed. */
export function QuickCapture() {
  const session = useSession()
  const { isOpen } = useCapture()
  const [text, setText] = useHalfWritten(`idea:${session.person}:${session.id}`)
  const [isKeeping, setKeeping] = useState(false)
  const home = session.collection.homeMap
  const close = () => useCapture.setState({ isOpen: false })
  const keep = async (isLast: boolean) => {
    const [first = '', ...rest] = text.trim().split('\n')
    if (first === '' || !home) return
    setKeeping(true)
    const args = { at: { drawer: home }, text: first, note: rest.join('\n').trim(), quote: '', address: '' }
    const done = await session.server.command('keep-clipping', args)
    setKeeping(false)
    if (!done) return
    setText('')
    tell(`Kept to be placed: ${first.slice(0, 60)}`)
    if (isLast) close()
  }
  return (
    <Modal opened={isOpen} onClose={close} title="An idea to be placed later">
      {home && session.mayEditMap(home) ? (
        <Stack gap="sm">
          <Textarea
            aria-label="The idea"
            description="The first line is the idea, what follows is its note."
            data-autofocus
            data-capture
            autosize
            minRows={2}
            maxRows={12}
            value={text}
            onChange={(event) => setText(event.currentTarget.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Enter' || event.shiftKey || event.nativeEvent.isComposing) return
              if (text.includes('\n') && !event.ctrlKey && !event.metaKey) return
              event.preventDefault()
              void keep(event.ctrlKey || event.metaKey)
            }}
          />
          <Text size="sm" c="dimmed">
            Enter keeps it and goes on to the next one, Shift + Enter begins its note. It waits in the drawer To place.
          </Text>
          <Group justify="flex-end" gap="xs">
            <Button variant="default" onClick={close}>
              Done
            </Button>
            <Button loading={isKeeping} disabled={text.trim() === ''} onClick={() => void keep(true)}>
              Keep
            </Button>
          </Group>
        </Stack>
      ) : (
        <Text>
          {home
            ? 'The drawer of this collection is not open to you for writing.'
            : 'This collection has no map yet: make one first.'}
        </Text>
      )}
    </Modal>
  )
}
