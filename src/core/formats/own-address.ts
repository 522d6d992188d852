import { FileId, MapId, TopicId } from '../records/ids'

/** Where an address inside a note leads within the collection; of a file also the page, counted from 1. */
export type OwnAddress =
  | { kind: 'topic'; id: TopicId }
  | { kind: 'map'; id: MapId }
  | { kind: 'file'; id: FileId; page: number | null }

/** Reads an address with our own scheme, as `writeOwnAddress` makes it; null for every other one. */
export function readOwnAddress(address: string): OwnAddress | null {
  const [, kind, id = '', page] = /^folvet:(topic|map|file)\/([0-9a-f-]{36})(?:#page=(\d{1,6}))?$/.exec(address) ?? []
  if (kind === 'file') {
    const file = FileId.safeParse(id).data
    return file ? { kind, id: file, page: page ? Number(page) : null } : null
  }
  if (page !== undefined) return null
  const topic = kind === 'topic' ? TopicId.safeParse(id).data : undefined
  if (topic) return { kind: 'topic', id: topic }
  const map = kind === 'map' ? MapId.safeParse(id).data : undefined
  return map ? { kind: 'map', id: map } : null
}

export const writeOwnAddress = (to: OwnAddress): string =>
  `folvet:${to.kind}/${to.id}${to.kind === 'file' && to.page !== null ? `#page=${to.page}` : ''}`
