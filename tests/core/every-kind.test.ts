import fc from 'fast-check'
import { expect, test } from 'vitest'
import { mergeMaps } from '../../src/core/commands/merge-maps'
import { crowdingOf } from '../../src/core/crowding/crowding'
import { proposeSplit, splitEffect } from '../../src/core/crowding/propose-split'
import { figuresOf, keyOfPart, moveCut, proposeRow, rowsOfParts } from '../../src/core/crowding/split-review'
import { writeFolder } from '../../src/core/formats/collection-folder/write-folder'
import { planMerge } from '../../src/core/matching/merge-plan'
import { crosslinkProblems } from '../../src/core/network/check-links'
import { fileLedger } from '../../src/core/network/file-ledger'
import { ledgerOf } from '../../src/core/network/ledger'
import { buildScene } from '../../src/core/scene/scene'
import { sortingTable } from '../../src/core/sorting/bands'
import { english } from '../../src/server/lexicon/lexicon'
import { buildSite } from '../../src/site/site'
import { COLLECTION, CONTEXT } from './gardens'
import { mixedPlot, mixing, seenTopics } from './mixed-plot'

test('every screen, review, plan and export takes maps with topics of every kind', () => {
  const lexicon = english()
  fc.assert(
    fc.property(mixing, (kinds) => {
      const { records, newIds } = mixedPlot(kinds)
      records.put('collection', { ...records.need('collection', COLLECTION), limits: { topics: 6, px: 30 } })
      const maps = [...records.all('map')].filter(({ trashed }) => !trashed).map(({ id }) => id)
      for (const map of maps) {
        const { layout } = buildScene(records, map, CONTEXT)
        crowdingOf(records, map, CONTEXT)
        const parts = proposeSplit(records, map, CONTEXT, newIds)
        const rows = rowsOfParts(parts)
        for (const row of rows) {
          figuresOf(records, row.part, layout)
          const moved = moveCut(records, rows, row, 'down').filter(
            (other) => keyOfPart(other.part) !== keyOfPart(row.part),
          )
          splitEffect(
            records,
            map,
            moved.map(({ part }) => part),
            CONTEXT,
            newIds,
          )
        }
        const on = seenTopics(records).filter((topic) => topic.place.map === map)
        const drawn = proposeRow(records, rows, on[0]!.id, on.at(-1)!.id)
        splitEffect(
          records,
          map,
          drawn.map(({ part }) => part),
          CONTEXT,
          newIds,
        )
        for (const topic of on) sortingTable(records, [topic], () => false)
      }
      for (const way of ['beside', 'combined'] as const)
        for (const map of maps.slice(1)) mergeMaps(records, { plan: planMerge(records, maps[0]!, [map], way) }, newIds)
      crosslinkProblems(records, COLLECTION)
      ledgerOf(records, () => true, lexicon)
      fileLedger(records, () => true, true)
      writeFolder(records, COLLECTION)
      expect([...buildSite(records, COLLECTION, [])].length).toBeGreaterThan(maps.length)
    }),
    { numRuns: 60 },
  )
}, 120_000)
