import { Providers } from '../app/Providers'
import { Workspace } from './Workspace'

/** The page of any map; which one its address tells. Without a connection one page serves for all of them. */
export default function WorkspacePage() {
  const [, collection = '', map = ''] = /^\/c\/([^/]+)\/m\/([^/]+)/.exec(window.location.pathname) ?? []
  return (
    <Providers>
      <Workspace collection={decodeURIComponent(collection)} map={decodeURIComponent(map)} />
    </Providers>
  )
}
