import { Button, Group, Select, Stack, Text, TextInput } from '@mantine/core'
import { useState } from 'react'
import { makeFolder } from '../../core/commands/folders'
import { FolderId, type MapId } from '../../core/records/ids'
import { MAX_TITLE } from '../../core/records/text'
import { Modal } from '../app/Modal'
import { useSession } from '../sync/use-session'
import { folderNames } from './folder-rows'

const NONE = 'none'

/** Puts maps into a folder: one that is there, a new one, or none. */
export function FolderDialog({ maps, onClose }: { maps: readonly MapId[]; onClose(): void }) {
  const session = useSession()
  const folders = folderNames(session.records)
  const [chosen, setChosen] = useState<string | null>(null)
  const [name, setName] = useState('')
  const put = async () => {
    let folder = chosen === NONE || chosen === null ? null : FolderId.parse(chosen)
    if (name.trim() !== '') {
      const known = new Set(folders.map(({ value }) => value))
      const parent = folder
      if (!session.run((records, newIds) => makeFolder(records, { title: name, parent }, newIds))) return
      folder = [...session.records.all('folder')].find(({ id, trashed }) => !trashed && !known.has(id))?.id ?? null
    }
    onClose()
    await session.server.command('put-into-folder', { maps: [...maps], folder })
  }
  return (
    <Modal
      opened
      onClose={onClose}
      title={maps.length === 1 ? 'Put the map into a folder' : `Put ${maps.length} maps into a folder`}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault()
          void put()
        }}
      >
        <Stack>
          <Select
            label="Folder"
            searchable
            value={chosen}
            placeholder="Choose one"
            data={[{ value: NONE, label: 'No folder' }, ...folders]}
            onChange={setChosen}
            data-autofocus
          />
          <TextInput
            label="Or a new folder"
            description={chosen && chosen !== NONE ? 'It is made inside the one above.' : undefined}
            value={name}
            maxLength={MAX_TITLE}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <Group justify="flex-end">
            {!chosen && name.trim() === '' && <Text size="sm">Choose a folder, or name a new one.</Text>}
            <Button type="submit" disabled={!chosen && name.trim() === ''}>
              Put there
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  )
}
