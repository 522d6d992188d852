import type { z } from 'zod'
import { named } from '../../core/commands/command'
import type { Member } from '../http/endpoint'
import { askJob } from './ask-job'
import type { ImportAsked } from './import-job'

/** Asks for an import; one that was asked for before under this id is not asked for again. */
export async function askImport(
  { collection, person }: Member,
  { id, pages, files }: z.infer<typeof ImportAsked>,
): Promise<{ job: string }> {
  const label = pages.length === 1 ? `Import ${named(pages[0]!.path)}` : `Import ${pages.length} pages`
  await askJob({ id, collection, person, kind: 'import', label: label.toWellFormed(), input: { pages, files } })
  return { job: id }
}
