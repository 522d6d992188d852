import { create } from 'zustand'
import { BUILD, BUILD_HEADER } from '../../core/build'

/** Whether the server is of another build than this window, which goes on with its own until it is loaded anew. */
export const useNewVersion = create<{ isThere: boolean }>(() => ({ isThere: false }))

/** Looks at which build an answer is of. */
export function noteBuild(answer: Headers): void {
  const build = answer.get(BUILD_HEADER)
  if (build && BUILD && build !== BUILD) useNewVersion.setState({ isThere: true })
}
