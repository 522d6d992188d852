import { useQuery } from '@tanstack/react-query'
import { z } from 'zod'
import { foldForSorting } from '../../core/text/folding'
import { ask } from '../app/api'

const Tags = z.array(z.object({ id: z.string(), name: z.string(), tone: z.number().nullable(), topics: z.number() }))
export type CountedTag = z.infer<typeof Tags>[number]

const byName = (a: CountedTag, b: CountedTag): number => {
  const [one, other] = [foldForSorting(a.name), foldForSorting(b.name)]
  return one < other ? -1 : one > other ? 1 : 0
}

export const tagsKey = (collection: string) => ['tags', collection]

/** All tags of a collection by name, with how many topics carry each. */
export function useTags(collection: string): readonly CountedTag[] | undefined {
  const { data } = useQuery({
    queryKey: tagsKey(collection),
    queryFn: async () => (await ask(Tags, `/api/collections/${collection}/tags`)).sort(byName),
    staleTime: 0,
  })
  return data
}
