import { UnstyledButton } from '@mantine/core'
import { useNewVersion } from '../app/new-version'
import { useSessionHandle } from './use-session'

/** How long is waited for what is on its way, in ms; what is not sent by then is kept in this browser and sent afterwards. */
const LONGEST_MS = 3_000

/** Tells quietly that the server has a new version, and takes it: what is written is kept first. */
export function NewVersion() {
  const session = useSessionHandle()
  const isThere = useNewVersion((state) => state.isThere)
  if (!isThere) return null
  const take = async () => {
    await Promise.race([session.whenSaved(), new Promise((later) => setTimeout(later, LONGEST_MS))])
    window.location.reload()
  }
  return (
    <UnstyledButton c="var(--spruce)" fz="sm" onClick={() => void take()}>
      New version: take it
    </UnstyledButton>
  )
}
