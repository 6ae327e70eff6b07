import { defineConfig } from 'vitest/config'

/** These replace modules or the network and so need a world of their own. */
const ALONE = [
  'src/api/**/*.test.ts',
  'src/tasks/bench/kinds/clear/listening/useListening.test.tsx',
  'src/tasks/heard/heard.test.tsx',
  'src/tasks/start-job/start.test.tsx',
]
const common = {
  environment: 'jsdom',
  setupFiles: ['./vitest.setup.ts'],
  pool: 'threads' as const,
  testTimeout: 60_000,
}

export default defineConfig({
  test: {
    projects: [
      // One world for all the others: making one costs more than most files' tests.
      {
        test: {
          ...common,
          name: 'together',
          include: ['src/**/*.test.{ts,tsx}'],
          exclude: ALONE,
          isolate: false,
        },
      },
      { test: { ...common, name: 'alone', include: ALONE } },
    ],
  },
})
