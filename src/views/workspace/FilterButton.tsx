import { Loader, Popover } from '@mantine/core'
import { Suspense, useCallback } from 'react'
import { isEmpty, matches, NO_FILTER } from '../../core/tree/filter'
import { topicsInOrder } from '../../core/tree/walk'
import { late } from '../app/late'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart } from '../sync/use-session'
import { type Pane, useWorkspace } from './workspace-store'

const FilterPanel = late(() => import('./FilterPanel'))

/** Lets topics stand out by their words and by what they carry, while the rest fades or goes. */
export function FilterButton({ pane, index }: { pane: Pane; index: number }) {
  // At once, because fields show what is being written in them.
  const filter = useWorkspace((state) => state.panes[index]?.filter) ?? NO_FILTER
  const active = !isEmpty(filter)
  const found = useCalmPart(
    useCallback(
      ({ records }: CollectionSession) =>
        isEmpty(filter)
          ? []
          : [...topicsInOrder(records, pane.map)]
              .filter((topic) => matches(records, topic, filter))
              .map(({ id }) => id),
      [pane.map, filter],
    ),
  )
  return (
    <Popover position="top-start" width={320} trapFocus withinPortal>
      <Popover.Target>
        <button type="button" data-active={active || undefined}>
          {active ? `Filter: ${found.length} of them` : 'Filter'}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <Suspense fallback={<Loader size="sm" aria-label="Opening the filter" />}>
          <FilterPanel pane={pane} index={index} filter={filter} found={found} />
        </Suspense>
      </Popover.Dropdown>
    </Popover>
  )
}
