import { cpSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import react from '@astrojs/react'
import { defineConfig, passthroughImageService } from 'astro/config'

/** The framework inside our own server: src/server/http/entry.ts takes its application and answers with it. */
const adapter = {
  name: 'folvet',
  hooks: {
    // What is computed for long runs in a thread of its own, from a file of its own: src/server/heavy/heavy.ts.
    'astro:build:setup': ({ vite, target }) => {
      if (target !== 'server') return
      const id = fileURLToPath(new URL('./src/server/heavy/worker.ts', import.meta.url))
      vite.plugins.push({
        name: 'heavy-worker',
        buildStart() {
          this.emitFile({ type: 'chunk', id, fileName: 'heavy-worker.mjs' })
        },
      })
    },
    // What the preview of PDF files asks for: which letters stand behind codes, and the fonts that such a file may leave out.
    'astro:build:done': ({ dir }) => {
      for (const part of ['cmaps', 'standard_fonts'])
        cpSync(new URL(`./node_modules/pdfjs-dist/${part}/`, import.meta.url), new URL(`pdf/${part}/`, dir), {
          recursive: true,
        })
    },
    'astro:config:done': ({ setAdapter }) =>
      setAdapter({
        name: 'folvet',
        serverEntrypoint: fileURLToPath(new URL('./src/server/http/entry.ts', import.meta.url)),
        exports: ['serverWith'],
        adapterFeatures: { buildOutput: 'server', edgeMiddleware: false },
        supportedAstroFeatures: { serverOutput: 'stable' },
      }),
  },
}

export default defineConfig({
  output: 'server',
  adapter,
  integrations: [react()],
  devToolbar: { enabled: false },
  telemetry: false,
  // Pictures are made by src/server/files/pictures.ts; the framework serves none.
  image: { service: passthroughImageService() },
  // Origin and Host are checked before the framework, also for requests that are not forms: src/server/http/front.ts.
  security: { checkOrigin: false },
  experimental: { csp: true },
  server: { host: '127.0.0.1', port: 4170 },
  vite: {
    define: { __FOLVET_BUILD__: JSON.stringify(process.env.FOLVET_BUILD ?? '') },
    build: { assetsInlineLimit: 0, chunkSizeWarningLimit: 1500 },
    ssr: { external: ['@node-rs/argon2', 'pg', 'pdfjs-dist'] },
  },
})
