import fc from 'fast-check'
import { expect, test, vi } from 'vitest'
import { Refusal } from '../../../src/core/changes/problem'
import type { IdSource, Outcome } from '../../../src/core/commands/command'
import { layoutMap } from '../../../src/core/layout/map-layout'
import type { Records } from '../../../src/core/records/records'
import type { TopicRecord } from '../../../src/core/records/topic'
import type { Situation } from '../../../src/views/acts/act'
import { ACTS } from '../../../src/views/acts/acts'
import { showStage } from '../../../src/views/workspace/shown-stages'
import { useWorkspace, workspace } from '../../../src/views/workspace/workspace-store'
import { CONTEXT, type Garden } from '../../core/gardens'
import { mixedPlot, mixing, seenTopics } from '../../core/mixed-plot'

/** Acts that need a page: what has the keyboard there, its address, the clipboard, or words selected in it. */
const OF_A_PAGE = new Set([
  'next-part',
  'part-before',
  'copy',
  'cut',
  'keep-from-web',
  'passage-topic',
  'passage-note',
  'draft',
])

type Command = (records: Records, ids: IdSource) => Outcome

/** A session that carries out commands as the server would, and notes what it refused. */
function sessionOn(garden: Garden, refused: string[]) {
  const run = (command: Command) => {
    try {
      return garden.do(command).select
    } catch (error) {
      if (!(error instanceof Refusal) && !(error instanceof Error)) throw error
      refused.push(error.message)
      return null
    }
  }
  return {
    id: 'here',
    records: garden.records,
    mayEdit: true,
    mayEditMap: () => true,
    mayCommentOn: () => true,
    undoable: { undo: null, redo: null },
    steps: () => [],
    titleOf: () => 'A map',
    isOpen: () => true,
    openMap: async () => undefined,
    takeBack: async () => undefined,
    run,
    compose: (command: Command) => run(command)?.[0] ?? null,
    server: { command: async () => null },
  } as never
}

/** What an act that asks for something is told. */
function answer(): void {
  const { dialog } = useWorkspace.getState()
  workspace.dialog(null)
  if (dialog?.kind === 'ask') dialog.take('1.4 An answer')
}

test('no act that is offered is refused, whatever kinds of topics it is done to', () => {
  vi.stubGlobal('window', { location: { assign: () => undefined }, innerWidth: 1280 })
  const chosen = fc.array(fc.nat(99), { minLength: 1, maxLength: 3 })
  try {
    fc.assert(
      fc.property(mixing, chosen, (kinds, choice) => {
        for (const act of ACTS) {
          if (OF_A_PAGE.has(act.id)) continue
          const garden = mixedPlot(kinds)
          const all = seenTopics(garden.records)
          const { map } = all[choice[0]! % all.length]!.place
          const here = all.filter(({ place }) => place.map === map)
          const topics = [...new Set(choice.map((at): TopicRecord => here[at % here.length]!))]
          const layout = layoutMap(garden.records, map, CONTEXT)
          showStage(0, { element: null as never, layout, pointAt: () => ({ x: 0, y: 0 }), panBy: () => undefined })
          workspace.start([{ map, face: 'map', topic: topics[0]!.id }])
          workspace.carry({ topics: [here[0]!.id], cut: false })
          const pane = { ...useWorkspace.getState().panes[0]!, selected: topics.map(({ id }) => id) }
          const refused: string[] = []
          const situation: Situation = { session: sessionOn(garden, refused), pane, index: 0, topics }
          if (act.whyNot(situation) !== null) continue
          act.name(situation)
          act.leads(situation)
          act.act(situation)
          answer()
          const before = topics.map(({ text, place }) => `${text} (${place.kind})`)
          expect({ act: act.id, before, refused }).toEqual({ act: act.id, before, refused: [] })
        }
      }),
      { numRuns: 25 },
    )
  } finally {
    vi.unstubAllGlobals()
  }
}, 120_000)
