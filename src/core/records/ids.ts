import { z } from 'zod'

/**
 * Every record is known by a UUIDv7 made by whoever makes the record, in lower case: the database takes capitals for the
 * same, so nobody else may tell them apart. The brand keeps ids of different kinds apart.
 */
const id = <Brand extends string>(brand: Brand) => {
  void brand
  return z.uuid().lowercase().brand<Brand>()
}

export const CollectionId = id('CollectionId')
export const MapId = id('MapId')
export const TopicId = id('TopicId')
export const NoteId = id('NoteId')
export const CrosslinkId = id('CrosslinkId')
export const WeblinkId = id('WeblinkId')
export const FileId = id('FileId')
export const AttachmentId = id('AttachmentId')
export const CommentId = id('CommentId')
export const EnclosureId = id('EnclosureId')
export const FolderId = id('FolderId')
export const TagId = id('TagId')
export const LookId = id('LookId')
export const TemplateId = id('TemplateId')
export const SearchId = id('SearchId')
export const PageId = id('PageId')
export const ChangeId = id('ChangeId')
export const PersonId = id('PersonId')

export type CollectionId = z.infer<typeof CollectionId>
export type MapId = z.infer<typeof MapId>
export type TopicId = z.infer<typeof TopicId>
export type NoteId = z.infer<typeof NoteId>
export type CrosslinkId = z.infer<typeof CrosslinkId>
export type WeblinkId = z.infer<typeof WeblinkId>
export type FileId = z.infer<typeof FileId>
export type AttachmentId = z.infer<typeof AttachmentId>
export type CommentId = z.infer<typeof CommentId>
export type EnclosureId = z.infer<typeof EnclosureId>
export type FolderId = z.infer<typeof FolderId>
export type TagId = z.infer<typeof TagId>
export type LookId = z.infer<typeof LookId>
export type TemplateId = z.infer<typeof TemplateId>
export type PageId = z.infer<typeof PageId>
export type SearchId = z.infer<typeof SearchId>
export type ChangeId = z.infer<typeof ChangeId>
export type PersonId = z.infer<typeof PersonId>
