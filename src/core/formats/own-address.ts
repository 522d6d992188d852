import { FileId, MapId, TopicId } from '../records/ids'

/**
 * Where an address inside a note leads within the collection: of a topic also to words of its note, of a file to a page, counted from 1;
 * null where it leads to the whole.
 */
export type OwnAddress =
  | { kind: 'topic'; id: TopicId; passage: string | null }
  | { kind: 'map'; id: MapId }
  | { kind: 'file'; id: FileId; page: number | null }

/** Most letters of a passage in an address. */
export const MOST_PASSAGE = 120

const FORM = /^folvet:(topic|map|file)\/([0-9a-f-]{36})(?:#(page|words)=([^#]{1,2000}))?$/

/** Reads an address with our own scheme, as `writeOwnAddress` makes it; null for every other one. */
export function readOwnAddress(address: string): OwnAddress | null {
  const [, kind, id = '', part, value = ''] = FORM.exec(address) ?? []
  if (kind === 'file' && part !== 'words') {
    const file = FileId.safeParse(id).data
    const page = part === 'page' && /^\d{1,6}$/.test(value) ? Number(value) : null
    return file && (part === undefined || page !== null) ? { kind, id: file, page } : null
  }
  if (kind === 'topic' && part !== 'page') {
    const topic = TopicId.safeParse(id).data
    const passage = part === 'words' ? decoded(value) : null
    return topic && passage !== '' ? { kind, id: topic, passage } : null
  }
  const map = kind === 'map' && part === undefined ? MapId.safeParse(id).data : undefined
  return map ? { kind: 'map', id: map } : null
}

/** Words as they stand in an address; empty where they are cut off in the middle of a letter. */
function decoded(words: string): string {
  try {
    return decodeURIComponent(words)
  } catch {
    return ''
  }
}

export function writeOwnAddress(to: OwnAddress): string {
  const address = `folvet:${to.kind}/${to.id}`
  if (to.kind === 'file' && to.page !== null) return `${address}#page=${to.page}`
  if (to.kind !== 'topic' || to.passage === null) return address
  // Parentheses would end a link in CommonMark.
  const words = encodeURIComponent(to.passage).replaceAll('(', '%28').replaceAll(')', '%29')
  return `${address}#words=${words}`
}
