import { defineConfig } from 'vitest/config';

/** Files that run at a time, on two cores as on more; projects of one group must agree on it. Three take longer on two cores. */
const maxWorkers = 2;

/** A limit against hanging, not a measure of speed: a machine that has other work to do is slower, not wrong. */
const limit = 120_000;

/** The same of what a test waits for within: a second, as it stands by itself, is too short for such a machine. */
const expect = { poll: { timeout: limit / 4 } };

/** Imports between layers resolve to sources, as they do for the compiler. */
const fromSource = { resolve: { conditions: ['source'] }, ssr: { resolve: { conditions: ['source'] } } };

export default defineConfig({
  ...fromSource,
  test: {
    projects: [
      {
        ...fromSource,
        test: {
          name: 'core',
          include: ['{core,contract,demo,standins}/src/**/*.test.ts'],
          setupFiles: ['reflect-metadata'],
          isolate: false, // core keeps nothing between two calls
          maxWorkers,
          testTimeout: limit,
          expect,
        },
      },
      {
        ...fromSource,
        test: {
          name: 'server',
          include: ['server/src/**/*.test.ts'],
          setupFiles: ['reflect-metadata'],
          globalSetup: ['server/test/template-database.ts'],
          isolate: false, // each file has a server of its own; Nest is loaded once
          maxWorkers,
          testTimeout: limit,
          hookTimeout: limit,
          expect,
        },
      },
      {
        ...fromSource,
        test: {
          name: 'web',
          include: ['web/src/**/*.test.ts'],
          setupFiles: ['reflect-metadata', 'web/test/local-storage.fixture.ts'],
          maxWorkers,
          testTimeout: limit,
          expect,
        },
      },
      {
        ...fromSource,
        test: {
          name: 'components',
          include: ['web/src/**/*.test.tsx'],
          environment: 'jsdom',
          setupFiles: ['reflect-metadata', 'web/test/browser.fixture.ts', 'web/test/cleared.fixture.ts'],
          isolate: false, // the interface is loaded once; what a test leaves behind is cleared after each
          maxWorkers,
          testTimeout: limit,
          hookTimeout: limit,
          expect,
        },
      },
      {
        // Wombat runs as it was built.
        test: {
          name: 'journeys',
          include: ['e2e/**/*.test.ts'],
          server: { deps: { external: [/\/dist\//] } },
          isolate: false, // it is loaded once for the journeys of a process
          globalSetup: ['e2e/prepared-demo.ts'],
          testTimeout: 5 * limit,
          hookTimeout: 5 * limit,
          sequence: { groupOrder: 1 },
          maxWorkers,
        },
      },
    ],
  },
});
