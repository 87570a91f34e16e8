import { defineConfig } from 'vitest/config';

const alias = { '@': new URL('./src', import.meta.url).pathname };
export default defineConfig({
  test: {
    // All cores: one worker is left idle by default, which on two cores is half of them.
    maxWorkers: '100%',
    // No test may need the one before it; the seed of the order is printed.
    sequence: { shuffle: { tests: true, files: false } },
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'unit',
          include: ['src/**/*.test.ts', 'demo/**/*.test.ts'],
          testTimeout: 240_000,
          hookTimeout: 240_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          testTimeout: 900_000,
          hookTimeout: 600_000,
          // Each opens browsers that take a core of their own.
          maxWorkers: 2,
          isolate: false,
          globalSetup: ['e2e/support/make-seeds.ts'],
          setupFiles: ['fake-indexeddb/auto'],
          // Vitest asks for a second alone, which a busy machine may need for one press.
          expect: { poll: { timeout: 120_000 } },
        },
      },
    ],
  },
});
