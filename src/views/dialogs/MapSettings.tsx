import SettingsDialog from '../settings/SettingsDialog'
import { useSession } from '../sync/use-session'
import { situationOf } from '../workspace/situation'
import { useWorkspace } from '../workspace/workspace-store'

/** The personal settings over a map: with the keys of what can be done there. */
export default function MapSettings({ onClose }: { onClose(): void }) {
  const session = useSession()
  const { active } = useWorkspace()
  return <SettingsDialog onClose={onClose} situation={situationOf(session, active)} />
}
