import { defineConfig } from 'vitest/config'

export default defineConfig({
  define: { __VERSION__: JSON.stringify('test') },
  test: { include: ['src/**/*.test.ts'], testTimeout: 60_000, hookTimeout: 60_000 },
})
