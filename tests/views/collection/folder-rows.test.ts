import { expect, test } from 'vitest'
import { makeFolder, putIntoFolder } from '../../../src/core/commands/folders'
import type { FolderId } from '../../../src/core/records/ids'
import type { MapDigest } from '../../../src/core/records/snapshot'
import { flatRows, folderNames, folderRows, type TableRow } from '../../../src/views/collection/folder-rows'
import { Garden } from '../../core/gardens'

const said = (rows: readonly TableRow[]) =>
  rows.map((row) => `${'  '.repeat(row.level)}${row.kind === 'folder' ? `[${row.folder.title}]` : row.map.title}`)

function shelf() {
  const garden = new Garden()
  const maps = ['Map 10', 'Map 2', 'Pond'].map((title, i) => garden.grow(`${title}\n${'a\n'.repeat(i + 1)}`))
  const make = (title: string, parent: FolderId | null) => {
    garden.do((r, m) => makeFolder(r, { title, parent }, m))
    return [...garden.records.all('folder')].find((folder) => folder.title === title)!.id
  }
  const [water, pools] = [make('Water', null), make('Pools', null)]
  garden.do((r, m) => putIntoFolder(r, { maps: [maps[2]!], folder: pools }, m))
  const digests = () =>
    [...garden.records.all('map')].map((map): MapDigest => {
      const { id, title, trashed, folder, inAtlas, homeDoorway } = map
      const topics = [...garden.records.topicsOf(id)].length
      return { id, title, trashed, folder, inAtlas, homeDoorway, parentMap: null, topics, opens: [], linked: [] }
    })
  return { garden, water, pools, digests }
}

test('maps stand below their folders, and are counted as people count', () => {
  const { garden, pools, water, digests } = shelf()
  const folder = garden.records.need('folder', pools)
  garden.records.put('folder', { ...folder, parent: water })
  const rows = (closed: string[] = []) => said(folderRows(garden.records, digests(), 'title', new Set(closed)))
  expect(rows()).toEqual(['[Water]', '  [Pools]', '    Pond', 'Map 2', 'Map 10'])
  expect(rows([water])).toEqual(['[Water]', 'Map 2', 'Map 10'])
  expect(said(flatRows(digests(), 'topics'))).toEqual(['Pond', 'Map 2', 'Map 10'])
  expect(folderNames(garden.records).map(({ label }) => label)).toEqual(['Water', 'Water › Pools'])
})

test('folders that lie in one another in a circle hide nothing', () => {
  const { garden, water, pools, digests } = shelf()
  garden.records.put('folder', { ...garden.records.need('folder', water), parent: pools })
  garden.records.put('folder', { ...garden.records.need('folder', pools), parent: water })
  expect(said(folderRows(garden.records, digests(), 'title', new Set()))).toEqual(
    expect.arrayContaining(['Map 2', 'Map 10', '  Pond']),
  )
})
