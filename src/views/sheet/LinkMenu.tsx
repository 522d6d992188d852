import { Menu } from '@mantine/core'
import { bendCrosslink, branchOfCrosslink, changeCrosslink, turnCrosslink } from '../../core/commands/crosslink-forms'
import { drawCrosslinks, removeCrosslinks } from '../../core/commands/crosslinks'
import type { CrosslinkRecord } from '../../core/records/crosslink'
import { useSessionHandle } from '../sync/use-session'
import { workspace } from '../workspace/workspace-store'

const DRAWN = {
  line: 'Draw as a line',
  quiet: 'Make it quiet: a sign at both ends',
  selected: 'Draw only while an end is selected',
} as const

/** How far each press bends a line aside, and how far at most, in px of the map. */
const [BEND_STEP, FARTHEST] = [60, 5_000]

/** What can be done with a cross-link, wherever it is pressed; `isHere` where both ends stand on the map that is seen. */
export function LinkMenu({ link, isHere }: { link: CrosslinkRecord; isHere: boolean }) {
  const session = useSessionHandle()
  const isOfTopics = link.to.kind === 'topic'
  const run = (command: Parameters<typeof session.run>[0]) => () => void session.run(command)
  const bendBy = (step: number) => {
    const { along, aside } = link.bend ?? { along: 0.5, aside: 0 }
    const bend = { along, aside: Math.max(-FARTHEST, Math.min(FARTHEST, aside + step)) }
    return run((records, newIds) => bendCrosslink(records, { crosslink: link.id, bend }, newIds))
  }
  const label = () =>
    workspace.dialog({
      kind: 'ask',
      title: 'Label of the cross-link',
      label: 'What it says',
      value: link.label,
      act: 'Take it',
      take: (text) =>
        session.run((records, newIds) => changeCrosslink(records, { crosslink: link.id, label: text }, newIds)),
    })
  return (
    <>
      {isHere &&
        (['line', 'quiet', 'selected'] as const)
          .filter((drawn) => drawn !== link.drawn)
          .map((drawn) => (
            <Menu.Item
              key={drawn}
              onClick={run((records, newIds) => drawCrosslinks(records, { crosslinks: [link.id], drawn }, newIds))}
            >
              {DRAWN[drawn]}
            </Menu.Item>
          ))}
      <Menu.Item onClick={label}>{link.label === '' ? 'Label it …' : 'Change its label …'}</Menu.Item>
      {isOfTopics && (
        <>
          <Menu.Item
            onClick={run((records, newIds) =>
              changeCrosslink(records, { crosslink: link.id, bothWays: !link.bothWays }, newIds),
            )}
          >
            {link.bothWays ? 'Let it lead one way' : 'Let it lead both ways'}
          </Menu.Item>
          <Menu.Item onClick={run((records, newIds) => turnCrosslink(records, { crosslink: link.id }, newIds))}>
            Turn it around
          </Menu.Item>
        </>
      )}
      {isHere && link.drawn !== 'quiet' && (
        <>
          <Menu.Item onClick={bendBy(-BEND_STEP)}>Bend its line to one side</Menu.Item>
          <Menu.Item onClick={bendBy(BEND_STEP)}>Bend its line to the other side</Menu.Item>
          {link.bend && (
            <Menu.Item
              onClick={run((records, newIds) => bendCrosslink(records, { crosslink: link.id, bend: null }, newIds))}
            >
              Let its line find its own way
            </Menu.Item>
          )}
        </>
      )}
      {isOfTopics && isHere && (
        <Menu.Item onClick={run((records, newIds) => branchOfCrosslink(records, { crosslink: link.id }, newIds))}>
          Make it a branch: what it leads to hangs where it begins
        </Menu.Item>
      )}
      <Menu.Item
        color="ember"
        onClick={run((records, newIds) => removeCrosslinks(records, { crosslinks: [link.id] }, newIds))}
      >
        Remove the cross-link
      </Menu.Item>
    </>
  )
}
