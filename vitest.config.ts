import { defineConfig } from 'vitest/config'
import { threads } from './scripts/threads.mjs'

export default defineConfig({
  plugins: [threads()],
  define: { __VERSION__: JSON.stringify('test') },
  test: { include: ['src/**/*.test.{ts,tsx}'], testTimeout: 60_000, hookTimeout: 60_000 },
})
