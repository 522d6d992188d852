import { refuse } from '../changes/problem'
import { usesOf } from '../network/file-ledger'
import { fileNameFrom } from '../records/file-name'
import type { FileId } from '../records/ids'
import { command, type NewChange, named, namedAll } from './command'

/** Gives a file another name, wherever it is. Refused where it is gone, and without a name. */
export const renameFile = command((change, args: { file: FileId; name: string }) => {
  const { name } = fileOf(change, args.file)
  if (args.name.trim() === '') refuse('invalid', 'A file needs a name.')
  change.update('file', args.file, { name: fileNameFrom(args.name.trim()) })
  return { label: `Rename ${named(name)}`, select: [] }
})

/** Puts files that are nowhere into the trash. Refused where one is gone, or is somewhere. O(files, and what refers to them). */
export const trashFiles = command((change, args: { files: readonly FileId[] }) => {
  const files = args.files.map((id) => fileOf(change, id))
  for (const file of files) {
    const [use] = usesOf(change.records, file)
    if (use) refuse('invalid', `${file.name} is still there: ${use.text || 'it belongs to the collection'}.`)
    change.update('file', file.id, { trashed: true })
  }
  return {
    label: `Remove ${namedAll(
      files.map(({ name: text }) => ({ text })),
      'files',
    )}`,
    select: [],
  }
})

function fileOf({ records }: NewChange, id: FileId) {
  const file = records.get('file', id)
  return !file || file.trashed ? refuse('gone', 'This file is gone.') : file
}
