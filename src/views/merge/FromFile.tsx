import { Button, FileButton } from '@mantine/core'
import { IconFileImport } from '@tabler/icons-react'
import { useState } from 'react'
import type { MapId } from '../../core/records/ids'
import { PAGE_TYPES, readPages } from '../beginning/read-pages'
import { useSession } from '../sync/use-session'

/** Brings texts and outlines in as maps, to be merged or compared at once. */
export function FromFile({ onBrought }: { onBrought(maps: readonly MapId[]): void }) {
  const session = useSession()
  const [isBusy, setBusy] = useState(false)
  const bring = async (files: readonly File[]) => {
    const pages = files.length > 0 ? await readPages(files) : null
    if (!pages) return
    setBusy(true)
    const brought = await session.server.importPages(pages)
    setBusy(false)
    if (brought) onBrought(brought.maps)
  }
  return (
    <FileButton accept={PAGE_TYPES} multiple onChange={(files) => void bring(files)}>
      {(props) => (
        <Button
          {...props}
          variant="default"
          size="compact-sm"
          loading={isBusy}
          leftSection={<IconFileImport size={14} aria-hidden />}
        >
          From a file …
        </Button>
      )}
    </FileButton>
  )
}
