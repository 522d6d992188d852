import { z } from 'zod'
import { FolderId } from './ids'
import { defineKind, names } from './kind'
import { title } from './text'

/** Where maps are put away together; folders may lie inside one another. One in the trash holds nothing any more. */
export const FolderRecord = z.strictObject({
  id: FolderId,
  title,
  /** The folder in which it lies; null for those that lie in none. */
  parent: FolderId.nullable(),
  trashed: z.boolean(),
})
export type FolderRecord = z.infer<typeof FolderRecord>

export const folderKind = defineKind(FolderRecord, {
  references: [names('parent', 'folder', 'The folder in which this one lies')],
  seenEverywhere: true,
})
