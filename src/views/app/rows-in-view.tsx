import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { useLayoutEffect, useRef, useState } from 'react'

/** Height of a row before it is measured, in px. */
const ROW = 46

/**
 * Those rows of a long table or list that are in view, with the room that the others take before and after them, in px. `height` is
 * that of a row before it is measured.
 */
export function useRowsInView<Body extends HTMLElement = HTMLTableSectionElement>(
  count: number,
  keyOf: (index: number) => string,
  height = ROW,
) {
  const body = useRef<Body>(null)
  const [above, setAbove] = useState(0)
  // biome-ignore lint/correctness/useExhaustiveDependencies: other rows can mean that the table stands elsewhere.
  useLayoutEffect(() => {
    if (body.current) setAbove(body.current.getBoundingClientRect().top + window.scrollY)
  }, [count])
  const rows = useWindowVirtualizer({
    count,
    estimateSize: () => height,
    overscan: 12,
    scrollMargin: above,
    getItemKey: keyOf,
  })
  const visible = rows.getVirtualItems()
  return {
    body,
    visible,
    before: (visible[0]?.start ?? above) - above,
    after: rows.getTotalSize() - ((visible.at(-1)?.end ?? above) - above),
    measure: rows.measureElement,
  }
}

/** Room for rows that are not in view. */
export const RowSpace = ({ height, columns }: { height: number; columns: number }) =>
  height > 0 && (
    <tr role="presentation">
      <td colSpan={columns} style={{ height, padding: 0, border: 0 }} />
    </tr>
  )
