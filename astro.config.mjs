import node from '@astrojs/node'
import react from '@astrojs/react'
import { defineConfig } from 'astro/config'

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'middleware' }),
  integrations: [react()],
  devToolbar: { enabled: false },
  telemetry: false,
  // The origin is checked by our own middleware, which also covers requests that are not forms.
  security: { checkOrigin: false },
  experimental: { csp: true },
  server: { host: '127.0.0.1', port: 4170 },
  vite: { build: { assetsInlineLimit: 0, chunkSizeWarningLimit: 1500 }, ssr: { external: ['@node-rs/argon2', 'pg'] } },
})
