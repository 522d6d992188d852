import { Providers } from '../app/Providers'
import { Workspace } from './Workspace'

export default function WorkspacePage({ collection, map }: { collection: string; map: string }) {
  return (
    <Providers>
      <Workspace collection={collection} map={map} />
    </Providers>
  )
}
