import { ActionIcon } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { removeTemplate } from '../../core/commands/save-template'
import { insertTemplate } from '../../core/commands/use-template'
import type { TopicId } from '../../core/records/ids'
import { Modal } from '../app/Modal'
import { today } from '../app/when'
import { useSession } from '../sync/use-session'
import { useTemplates } from '../sync/use-templates'
import { useWorkspace, workspace } from '../workspace/workspace-store'
import styles from './beginning.module.css'
import { Plate, TemplatePicture } from './Plate'

/** Hangs what a template makes onto a topic; one's own templates can be removed here. */
export default function InsertTemplate({ topic, onClose }: { topic: TopicId; onClose(): void }) {
  const session = useSession()
  const { active } = useWorkspace()
  const templates = useTemplates()
  const insert = (template: string) => {
    onClose()
    const select = session.run((records, newIds) =>
      insertTemplate(records, { topic, template, today: today() }, newIds),
    )
    if (select) workspace.select(active, select)
  }
  return (
    <Modal opened onClose={onClose} title="Insert a template" size="xl">
      <div className={styles.plates}>
        {templates.map(({ id, name, use, kept }) => (
          <div key={id} className={styles.removable}>
            <Plate name={name} use={use} onChoose={() => insert(id)}>
              <TemplatePicture template={id} name={name} />
            </Plate>
            {kept && session.mayEdit && (
              <ActionIcon
                className={styles.remove}
                variant="subtle"
                color="gray"
                aria-label={`Remove the template ${name}`}
                onClick={() => session.run((records, newIds) => removeTemplate(records, { template: kept }, newIds))}
              >
                <IconX size={16} />
              </ActionIcon>
            )}
          </div>
        ))}
      </div>
    </Modal>
  )
}
