import { folderAround } from '../../core/commands/folders'
import type { FolderRecord } from '../../core/records/folder'
import type { Records } from '../../core/records/records'
import type { MapDigest } from '../../core/records/snapshot'

/** As people count: Map 2 stands before Map 10. */
const order = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' })

/** A row of the table of maps: a folder, or a map in it. */
export type TableRow =
  | { kind: 'folder'; key: string; level: number; folder: FolderRecord; maps: number }
  | { kind: 'map'; key: string; level: number; map: MapDigest }

export type SortedBy = 'title' | 'topics' | 'links'

const BY: Record<SortedBy, (a: MapDigest, b: MapDigest) => number> = {
  title: (a, b) => order.compare(a.title, b.title),
  topics: (a, b) => b.topics - a.topics || order.compare(a.title, b.title),
  links: (a, b) => b.linked.length - a.linked.length || order.compare(a.title, b.title),
}

/** Maps as rows without folders. */
export const flatRows = (maps: readonly MapDigest[], by: SortedBy): TableRow[] =>
  [...maps].sort(BY[by]).map((map) => ({ kind: 'map', key: map.id, level: 0, map }))

/** Maps below the folders in which they lie, by name, those in none last; of folders that are `closed` only the name. */
export function folderRows(
  records: Records,
  maps: readonly MapDigest[],
  by: SortedBy,
  closed: ReadonlySet<string>,
): TableRow[] {
  const inFolder = new Map<string | null, MapDigest[]>()
  for (const map of maps) {
    const folder = folderAround(records, map.folder)?.id ?? null
    inFolder.set(folder, [...(inFolder.get(folder) ?? []), map])
  }
  const below = new Map<string | null, FolderRecord[]>()
  for (const folder of records.all('folder')) {
    if (folder.trashed) continue
    const around = isInItself(records, folder) ? null : (folderAround(records, folder.parent)?.id ?? null)
    below.set(around, [...(below.get(around) ?? []), folder])
  }
  const rows: TableRow[] = []
  const seen = new Set<string>()
  const put = (around: string | null, level: number) => {
    for (const folder of (below.get(around) ?? []).sort((a, b) => order.compare(a.title, b.title))) {
      if (seen.has(folder.id)) continue
      seen.add(folder.id)
      const own = inFolder.get(folder.id) ?? []
      rows.push({ kind: 'folder', key: folder.id, level, folder, maps: own.length })
      if (closed.has(folder.id)) continue
      put(folder.id, level + 1)
    }
    for (const map of (inFolder.get(around) ?? []).sort(BY[by])) rows.push({ kind: 'map', key: map.id, level, map })
  }
  put(null, 0)
  return rows
}

/** Whether folders lie in one another in a circle, which no command makes: what is in them would be seen nowhere. */
function isInItself(records: Records, folder: FolderRecord): boolean {
  const seen = new Set<string>()
  for (let at = records.get('folder', folder.parent); at; at = records.get('folder', at.parent)) {
    if (at.id === folder.id || seen.has(at.id)) return true
    seen.add(at.id)
  }
  return false
}

/** Folders with the way to each, for choosing one. */
export function folderNames(records: Records): { value: string; label: string }[] {
  const wayTo = (folder: FolderRecord): string => {
    const way = [folder.title]
    for (let at = folderAround(records, folder.parent); at && way.length < 20; at = folderAround(records, at.parent))
      way.unshift(at.title)
    return way.join(' › ')
  }
  return [...records.all('folder')]
    .filter(({ trashed }) => !trashed)
    .map((folder) => ({ value: folder.id as string, label: wayTo(folder) }))
    .sort((a, b) => order.compare(a.label, b.label))
}
