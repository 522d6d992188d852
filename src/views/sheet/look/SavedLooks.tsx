import { ActionIcon, Button, Stack } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { changeLook, type LookTarget, removeLook, saveLook } from '../../../core/commands/looks'
import type { Look } from '../../../core/records/look'
import type { CollectionSession } from '../../sync/collection-session'
import type { Command } from '../../sync/trial'
import { useCalmPart, useMayEdit, useSessionHandle } from '../../sync/use-session'
import { workspace } from '../../workspace/workspace-store'
import { PartHead } from './Choice'
import styles from './look.module.css'
import { usePreviews } from './use-previews'

const savedIn = ({ records }: CollectionSession) =>
  [...records.all('look')].filter((look) => !look.trashed).sort((a, b) => (a.name < b.name ? -1 : 1))

/** Looks that were kept under a name: to put on, and to add to. */
export function SavedLooks({ target, own }: { target: LookTarget; own: Look }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const saved = useCalmPart(savedIn)
  const previews = usePreviews()
  if (!mayEdit || (saved.length === 0 && Object.keys(own).length === 0)) return null
  const put =
    (look: Look): Command =>
    (records, newIds) =>
      changeLook(records, { target, set: look, clear: [] }, newIds)
  return (
    <div>
      <PartHead label="Saved looks" />
      <Stack gap={4}>
        {saved.map(({ id, name, look }) => (
          <div key={id} className={styles.saved}>
            <button
              type="button"
              className={styles.option}
              onPointerMove={previews.move(put(look))}
              onPointerLeave={previews.leave}
              onClick={() => session.run(put(look))}
            >
              {name}
            </button>
            <ActionIcon
              variant="subtle"
              color="gray"
              size="sm"
              aria-label={`Remove the look ${name}`}
              onClick={() => session.run((records, newIds) => removeLook(records, { look: id }, newIds))}
            >
              <IconX size={14} />
            </ActionIcon>
          </div>
        ))}
        {Object.keys(own).length > 0 && (
          <Button
            variant="default"
            size="xs"
            onClick={() =>
              workspace.dialog({
                kind: 'ask',
                title: 'Save this look',
                label: 'Name under which it can be put on other topics',
                value: '',
                act: 'Save',
                take: (name) => session.run((records, newIds) => saveLook(records, { name, look: own }, newIds)),
              })
            }
          >
            Save what is set here as a look …
          </Button>
        )}
      </Stack>
    </div>
  )
}
