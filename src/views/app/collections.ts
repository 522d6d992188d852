import { useQuery } from '@tanstack/react-query'
import { z } from 'zod'
import { ask } from './api'

export const Collections = z.array(
  z.object({
    id: z.string(),
    title: z.string(),
    role: z.string(),
    trashed: z.boolean(),
    maps: z.number(),
    topics: z.number(),
    homeMap: z.string().nullable(),
    changedAt: z.string().nullable(),
    lately: z.array(z.object({ map: z.string(), title: z.string(), label: z.string(), at: z.string() })),
    published: z.boolean(),
  }),
)
export type CollectionRow = z.infer<typeof Collections>[number]

/** The collections that are open to whoever is signed in, those in the trash among them. */
export const useCollections = () =>
  useQuery({ queryKey: ['collections'], queryFn: () => ask(Collections, '/api/collections') })
