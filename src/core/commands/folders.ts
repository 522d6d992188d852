import { refuse } from '../changes/problem'
import type { FolderRecord } from '../records/folder'
import { FolderId, type MapId } from '../records/ids'
import type { Records } from '../records/records'
import { titleOf } from '../text/title'
import { command, type NewChange, named, namedAll } from './command'

function folderHere({ records }: NewChange, id: FolderId): FolderRecord {
  const folder = records.get('folder', id)
  return folder && !folder.trashed ? folder : refuse('gone', 'This folder is gone.')
}

/** The folder in which something lies; one in the trash is as good as the one around it. */
export function folderAround(records: Records, id: FolderId | null): FolderRecord | null {
  const seen = new Set<string>()
  for (let at = records.get('folder', id); at && !seen.has(at.id); at = records.get('folder', at.parent)) {
    if (!at.trashed) return at
    seen.add(at.id)
  }
  return null
}

/** Makes a folder, in another one or in none. Refused without a name, and where the other one is gone. */
export const makeFolder = command((change, args: { title: string; parent: FolderId | null }) => {
  const title = titleOf(args.title)
  if (title === '') refuse('invalid', 'A folder needs a name.')
  if (args.parent) folderHere(change, args.parent)
  change.create('folder', { id: change.newId(FolderId), title, parent: args.parent, trashed: false })
  return { label: `Make the folder ${named(title)}`, select: [] }
})

/** Gives a folder another name. Refused without one, and where it is gone. */
export const renameFolder = command((change, args: { folder: FolderId; title: string }) => {
  const folder = folderHere(change, args.folder)
  const title = titleOf(args.title)
  if (title === '') refuse('invalid', 'A folder needs a name.')
  change.update('folder', folder.id, { title })
  return { label: `Rename the folder ${named(folder.title)}`, select: [] }
})

/** Puts a folder into another one, or into none. Refused where one is gone, and inside itself. */
export const moveFolder = command((change, args: { folder: FolderId; parent: FolderId | null }) => {
  const folder = folderHere(change, args.folder)
  const seen = new Set<string>()
  for (let at = args.parent && folderHere(change, args.parent); at && !seen.has(at.id); ) {
    if (at.id === folder.id) refuse('loop', 'A folder cannot lie in itself.')
    seen.add(at.id)
    at = change.records.get('folder', at.parent) ?? null
  }
  change.update('folder', folder.id, { parent: args.parent })
  return { label: `Move the folder ${named(folder.title)}`, select: [] }
})

/** Puts a folder into the trash; what is in it lies in the folder around it. Refused where it is gone. */
export const trashFolder = command((change, args: { folder: FolderId }) => {
  const folder = folderHere(change, args.folder)
  change.update('folder', folder.id, { trashed: true })
  return { label: `Put the folder ${named(folder.title)} into the trash`, select: [] }
})

/** Puts maps into a folder, or into none. Refused where one is gone. Needs the records of the maps. */
export const putIntoFolder = command((change, args: { maps: readonly MapId[]; folder: FolderId | null }) => {
  const maps = args.maps.map((id) => change.map(id))
  if (maps.length === 0) refuse('invalid', 'Choose maps first.')
  const folder = args.folder && folderHere(change, args.folder)
  for (const { id } of maps) change.update('map', id, { folder: folder?.id ?? null })
  const name = namedAll(
    maps.map(({ title }) => ({ text: title })),
    'maps',
  )
  return { label: `Put ${name} into ${folder ? named(folder.title) : 'no folder'}`, select: [] }
})
