import { z } from 'zod'
import { FileName } from './file-name'
import { FileId } from './ids'
import { defineKind } from './kind'
import { storedText } from './text'

/** Largest file that can be uploaded. */
export const MAX_FILE_BYTES = 100 * 1024 * 1024

/** A file uploaded into the collection. Its content is addressed by its SHA-256 and never changes. */
export const FileRecord = z.strictObject({
  id: FileId,
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  name: FileName,
  /** Media type as found in the content, not as claimed by the uploader. */
  type: storedText(255),
  /** Size in bytes. */
  size: z.number().int().min(0),
  /** Size of a picture in px; null for everything else. */
  picture: z.strictObject({ width: z.number().int().min(1), height: z.number().int().min(1) }).nullable(),
  trashed: z.boolean(),
})
export type FileRecord = z.infer<typeof FileRecord>

export const fileKind = defineKind(FileRecord)
