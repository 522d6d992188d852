import { Button, Tooltip } from '@mantine/core'
import { IconMessage } from '@tabler/icons-react'
import { useSessionHandle } from '../sync/use-session'
import { useNewComments } from './comments'

/** Tells, where there is any, how much was said that this person has not seen, and leads there. */
export default function NewComments() {
  const { id } = useSessionHandle()
  const fresh = useNewComments() ?? []
  if (fresh.length === 0) return null
  const forMe = fresh.filter(({ isForMe }) => isForMe).length
  const words = `${fresh.length === 1 ? '1 new comment' : `${fresh.length} new comments`}${forMe > 0 ? `, ${forMe} naming you` : ''}`
  return (
    <Tooltip label={words}>
      <Button
        size="compact-sm"
        variant="subtle"
        component="a"
        href={`/c/${id}/comments`}
        aria-label={words}
        leftSection={<IconMessage size={16} aria-hidden />}
      >
        {fresh.length}
      </Button>
    </Tooltip>
  )
}
