import { Autocomplete, Button, Stack, TextInput } from '@mantine/core'
import { MAX_TITLE } from '../../core/records/text'
import { Modal } from '../app/Modal'
import type { Dialog } from '../workspace/workspace-store'

/** Asks for one line of text, which can be one of some choices. */
export default function AskDialog({ asked, onClose }: { asked: Extract<Dialog, { kind: 'ask' }>; onClose(): void }) {
  return (
    <Modal opened onClose={onClose} title={asked.title}>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          onClose()
          asked.take(String(new FormData(event.currentTarget).get('text') ?? ''))
        }}
      >
        <Stack>
          {asked.choices ? (
            <Autocomplete
              name="text"
              label={asked.label}
              data={[...asked.choices]}
              maxLength={MAX_TITLE}
              data-autofocus
            />
          ) : (
            <TextInput
              name="text"
              label={asked.label}
              defaultValue={asked.value}
              maxLength={MAX_TITLE}
              data-autofocus
            />
          )}
          <Button type="submit">{asked.act}</Button>
        </Stack>
      </form>
    </Modal>
  )
}
