import { defineConfig } from 'vitest/config';

const alias = { '@': new URL('./src', import.meta.url).pathname };

export default defineConfig({
  test: {
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'unit',
          include: ['src/**/*.test.ts', 'stand-ins/**/*.test.ts', 'scripts/**/*.test.ts'],
          testTimeout: 20_000,
          isolate: false,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'database',
          include: ['tests/database/**/*.test.ts'],
          globalSetup: 'tests/database/server.ts',
          testTimeout: 60_000,
          hookTimeout: 60_000,
          maxWorkers: 3,
          pool: 'forks',
          // The product is loaded once by each worker, not by each file: a file has its own database and configuration.
          isolate: false,
        },
      },
    ],
  },
});
