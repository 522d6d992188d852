import { Button, Group, Stack, TextInput } from '@mantine/core'
import { useState } from 'react'
import { Modal } from './Modal'

interface Props {
  title: string
  /** What the button says, where it is not *Rename*. */
  act?: string
  /** The name until now. */
  name: string
  /** How many letters it may have. */
  most: number
  onName(name: string): void
  onClose(): void
}

/** Asks for the name of something. */
export function NameDialog({ title, act = 'Rename', name: before, most, onName, onClose }: Props) {
  const [name, setName] = useState(before)
  return (
    <Modal opened onClose={onClose} title={title}>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          onName(name)
        }}
      >
        <Stack>
          <TextInput
            label="Name"
            data-autofocus
            value={name}
            maxLength={most}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <Group justify="flex-end">
            <Button variant="default" onClick={onClose}>
              Cancel
            </Button>
            <Button type="submit" disabled={name.trim() === ''}>
              {act}
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  )
}
