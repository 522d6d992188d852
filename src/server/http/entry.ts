import type { SSRManifest } from 'astro'
import { NodeApp } from 'astro/app/node'
import { startJobs } from '../jobs/runner'
import { startUpkeep } from '../upkeep'
import { serverFor } from './front'

/** What the built application hands to the process that serves it: see `astro.config.mjs` and `scripts/serve.mjs`. */
export function createExports(manifest: SSRManifest) {
  const app = new NodeApp(manifest)
  startUpkeep()
  startJobs()
  return { serverWith: (files: Parameters<typeof serverFor>[1]) => serverFor(app, files) }
}
