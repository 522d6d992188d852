import type { FileRecord } from '../../core/records/file'

/** How a file is shown beside the map; `words` is the text inside of it, `none` its details alone. */
export type Preview = 'picture' | 'pdf' | 'table' | 'commonmark' | 'text' | 'words' | 'audio' | 'video' | 'none'

const PICTURE = /^image\//
const WORDS = new Set(['docx', 'html', 'htm'])

export function previewOf({ type, name, picture }: Pick<FileRecord, 'type' | 'name' | 'picture'>): Preview {
  const ending = name.split('.').at(-1)!.toLowerCase()
  if (picture && PICTURE.test(type)) return 'picture'
  if (type === 'application/pdf') return 'pdf'
  if (type === 'text/csv' || (type === 'text/plain' && ending === 'tsv')) return 'table'
  if (type === 'text/markdown') return 'commonmark'
  if (WORDS.has(ending)) return 'words'
  if (type.startsWith('text/')) return 'text'
  if (type.startsWith('audio/')) return 'audio'
  return type.startsWith('video/') ? 'video' : 'none'
}
