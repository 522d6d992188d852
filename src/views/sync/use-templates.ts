import { useEffect } from 'react'
import type { TemplateId } from '../../core/records/ids'
import { TEMPLATES } from '../../core/templates/templates'
import { counted } from '../../core/text/counted'
import { tellTrouble } from '../app/api'
import { useSession } from './use-session'

/** All templates that can be used in the collection: those kept there, then ours. */
export function useTemplates(): { id: string; name: string; use: string; kept: TemplateId | null }[] {
  const session = useSession()
  useEffect(() => {
    session.loadTemplates().catch(tellTrouble)
  }, [session])
  const kept = [...session.records.all('template')].filter((template) => !template.trashed)
  kept.sort((a, b) => (a.name < b.name ? -1 : 1))
  return [
    ...kept.map(({ id, name, lines }) => ({
      id,
      name,
      use: `Kept here: ${counted(lines.length, 'topic', 'topics')}`,
      kept: id,
    })),
    ...TEMPLATES.map(({ id, name, use }) => ({ id, name, use, kept: null })),
  ]
}
