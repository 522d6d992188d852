import { useQuery } from '@tanstack/react-query'
import { z } from 'zod'
import type { Page } from '../../core/formats/page-file'
import { ask } from '../app/api'

const Known = z.array(z.object({ path: z.string(), map: z.string(), title: z.string() }))

/** The pages from which maps came, by path. */
export function useKnownPages(collection: string): ReadonlyMap<string, { map: string; title: string }> {
  const { data } = useQuery({
    queryKey: ['pages', collection],
    queryFn: () => ask(Known, `/api/collections/${collection}/pages`),
    staleTime: 0,
  })
  return new Map((data ?? []).map((page) => [page.path, page]))
}

const texts = z.array(z.string())
export const PageDifferences = z.object({
  path: z.string(),
  map: z.string().nullable(),
  title: z.string(),
  state: z.enum(['new', 'changed', 'same']),
  added: texts,
  removed: texts,
  moved: texts,
  reworded: z.array(z.object({ from: z.string(), to: z.string() })),
  noted: texts,
  both: texts,
  counts: z.record(z.string(), z.number()),
})
export type PageDifferences = z.infer<typeof PageDifferences>

/** What is different in pages since they were last brought in; null where there are none to ask for. */
export function usePageDifferences(collection: string, pages: readonly Page[] | null) {
  return useQuery({
    queryKey: [
      'page differences',
      collection,
      pages?.map(({ path, text }) => `${path} ${text.length} ${text.slice(0, 200)}`),
    ],
    queryFn: () =>
      ask(z.array(PageDifferences), `/api/collections/${collection}/pages`, {
        method: 'POST',
        body: { pages },
        limit: 60_000,
      }),
    enabled: pages !== null && pages.length > 0,
    staleTime: 0,
    gcTime: 0,
    retry: false,
  })
}
