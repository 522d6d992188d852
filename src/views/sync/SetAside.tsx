import { Button, CopyButton, Group, Stack, Text, Textarea } from '@mantine/core'
import type { ReactNode } from 'react'
import type { Change } from '../../core/changes/edit'
import type { Aside } from './outbox'

/** The texts that a change brings, each on lines of its own. */
export const wordsIn = (change: Change): string =>
  change.edits
    .flatMap((edit) => {
      const after: Record<string, unknown> = edit.after
      return [after.text, after.title, after.label].filter((words) => typeof words === 'string' && words !== '')
    })
    .join('\n')

/** A change that the server did not take: why, its words to be copied, what else can be done with it, and the way to give it up. */
export function SetAside({ aside, throwAway, children }: { aside: Aside; throwAway(): void; children?: ReactNode }) {
  const { change, message } = aside
  const words = wordsIn(change)
  return (
    <Stack gap="xs">
      <Text fw={600}>{change.label}</Text>
      <Text c="var(--ember-text)">{message}</Text>
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
        {children}
        <Button variant="subtle" color="ember" onClick={throwAway}>
          Throw away
        </Button>
      </Group>
    </Stack>
  )
}
