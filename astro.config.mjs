import { readFileSync } from 'node:fs'
import node from '@astrojs/node'
import react from '@astrojs/react'
import { defineConfig } from 'astro/config'
import { oneShell } from './scripts/one-shell.mjs'
import { threads } from './scripts/threads.mjs'

const { version } = JSON.parse(readFileSync('package.json', 'utf8'))

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'standalone' }),
  integrations: [react()],
  devToolbar: { enabled: false },
  build: { inlineStylesheets: 'never' },
  security: { checkOrigin: false },
  experimental: {
    csp: {
      algorithm: 'SHA-256',
      directives: [
        "default-src 'none'",
        "connect-src 'self'",
        "img-src 'self' data:",
        "font-src 'self'",
        "worker-src 'self' blob:",
        "media-src 'self' blob:",
        "manifest-src 'self'",
        "base-uri 'none'",
        "form-action 'self'",
        "frame-ancestors 'none'",
      ],
    },
  },
  vite: {
    plugins: [threads(), oneShell()],
    define: { __VERSION__: JSON.stringify(version) },
    build: { assetsInlineLimit: 0 },
    // Bundled for the server, so that a start does not read hundreds of files.
    ssr: { noExternal: ['lucide-react', 'match-sorter', 'nanostores', '@nanostores/react', 'tinykeys'] },
  },
})
