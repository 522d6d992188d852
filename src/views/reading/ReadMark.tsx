import { Checkbox } from '@mantine/core'
import { markRead } from '../../core/commands/sources'
import type { ToldSource } from '../../core/network/sources'
import { useMayEdit, useSessionHandle } from '../sync/use-session'

/** Says whether a source was read. */
export function ReadMark({ source, isBare = false }: { source: ToldSource; isBare?: boolean }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  return (
    <Checkbox
      size="xs"
      checked={source.read}
      disabled={!mayEdit}
      {...(isBare ? { 'aria-label': `${source.name} is read` } : { label: 'Read' })}
      onChange={(event) => {
        const read = event.currentTarget.checked
        session.run((records, newIds) => markRead(records, { sources: [source], read }, newIds))
      }}
    />
  )
}
