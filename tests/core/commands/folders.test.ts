import { expect, test } from 'vitest'
import {
  folderAround,
  makeFolder,
  moveFolder,
  putIntoFolder,
  renameFolder,
  trashFolder,
} from '../../../src/core/commands/folders'
import type { FolderId } from '../../../src/core/records/ids'
import { Garden, refusal } from '../gardens'

test('maps lie in folders, folders in folders, and in none when that is gone', () => {
  const garden = new Garden()
  const map = garden.grow('Pond\nReeds')
  const make = (title: string, parent: FolderId | null) => {
    garden.do((r, m) => makeFolder(r, { title, parent }, m))
    return [...garden.records.all('folder')].find((folder) => folder.title === title)!.id
  }
  const water = make('Water', null)
  const pools = make('Pools', water)
  garden.do((r, m) => putIntoFolder(r, { maps: [map], folder: pools }, m))
  const around = () => folderAround(garden.records, garden.records.need('map', map).folder)?.title ?? null
  expect(around()).toBe('Pools')
  garden.do((r, m) => trashFolder(r, { folder: pools }, m))
  expect(around()).toBe('Water')
  garden.do((r, m) => renameFolder(r, { folder: water, title: 'Wet things' }, m))
  expect(around()).toBe('Wet things')
  garden.do((r, m) => putIntoFolder(r, { maps: [map], folder: null }, m))
  expect(around()).toBeNull()
  const refused = (act: () => unknown) => refusal(() => act())
  expect(refused(() => garden.do((r, m) => putIntoFolder(r, { maps: [map], folder: pools }, m)))).toBe(
    'This folder is gone.',
  )
  const inner = make('Inner', water)
  expect(refused(() => garden.do((r, m) => moveFolder(r, { folder: water, parent: inner }, m)))).toBe(
    'A folder cannot lie in itself.',
  )
  expect(refused(() => garden.do((r, m) => makeFolder(r, { title: ' ', parent: null }, m)))).toBe(
    'A folder needs a name.',
  )
})
