import { v7 as uuid } from 'uuid'
import { beforeAll, expect, test } from 'vitest'
import { makeMap } from '../../src/core/commands/maps'
import { sendToMap } from '../../src/core/commands/send-to-map'
import { pourToPlace } from '../../src/core/commands/to-place'
import { CollectionId } from '../../src/core/records/ids'
import { toPlaceOn } from '../../src/core/tree/to-place'
import { createCollection, wholeCollection } from '../../src/server/collections'
import { type Author, commitChanges, unlimited } from '../../src/server/commit/commit-changes'
import { transaction } from '../../src/server/database'
import { createGuest } from '../../src/server/people/people'
import { loadCollection } from '../../src/server/records/tables'

let author: Author
beforeAll(async () => {
  author = unlimited(await transaction(createGuest))
})

test('what is to be placed is kept by the database as it was', async () => {
  const collection = await transaction((client) => createCollection(client, author.id, 'Test'))
  const load = () => wholeCollection(collection, (client, into) => loadCollection(client, into, collection))
  const newIds = { newId: uuid }
  const run = async (act: (records: Awaited<ReturnType<typeof load>>['records']) => ReturnType<typeof makeMap>) => {
    const { change } = act((await load()).records)
    const [result] = await commitChanges(collection, [{ change, author }])
    expect(result).toMatchObject({ ok: true })
  }
  for (const title of ['Bog', 'Pools'])
    await run((records) => makeMap(records, { collection: CollectionId.parse(collection), title }, newIds))
  const mapNamed = (records: Awaited<ReturnType<typeof load>>['records'], title: string) =>
    [...records.all('map')].find((map) => map.title === title)!.id
  await run((records) => pourToPlace(records, { map: mapNamed(records, 'Bog'), text: 'Sedge\nMoss' }, newIds))
  const { records } = await load()
  const waiting = toPlaceOn(records, mapNamed(records, 'Bog'))
  expect(waiting.map(({ text }) => text)).toEqual(['Sedge', 'Moss'])
  await run((all) => sendToMap(all, { topics: [waiting[0]!.id], map: mapNamed(all, 'Pools'), copies: false }, newIds))
  const after = (await load()).records
  expect(toPlaceOn(after, mapNamed(after, 'Bog')).map(({ text }) => text)).toEqual(['Moss'])
  expect(after.need('topic', waiting[0]!.id).place.map).toBe(mapNamed(after, 'Pools'))
})
