import { resolve } from 'node:path';
import { defineConfig } from '@playwright/test';

const app = (port, database) => ({
  command: `dotnet ../../artifacts/bin/Web/release_linux-x64/UnrulyMeadow.Web.dll --urls http://127.0.0.1:${port} --contentRoot ${resolve('../../src/Web')}`,
  url: `http://127.0.0.1:${port}/health`,
  env: { ...process.env, MEADOW_DB: database, ASPNETCORE_ENVIRONMENT: 'Production' },
  timeout: 60_000,
  reuseExistingServer: false,
});

const { MEADOW_STUDIO_PORT: studio, MEADOW_STUDIO_DB: studioDb, MEADOW_DEMO_PORT: demo, MEADOW_EMPTY_PORT: empty, MEADOW_WALK_PORT: walk, MEADOW_DEMO_DB: demoDb, MEADOW_EMPTY_DB: emptyDb, MEADOW_WALK_DB: walkDb } = process.env;
if (!demo || !studio || !studioDb || !empty || !walk || !demoDb || !emptyDb || !walkDb) throw new Error('Run the browser tests with ./meadow test; it makes the databases they need.');

export default defineConfig({
  testDir: '.',
  workers: 2,
  // Long walks on a busy machine take minutes; a hanging one still ends.
  timeout: 240_000,
  expect: { timeout: 20_000 },
  outputDir: '../../artifacts/browser',
  reporter: [['list'], ['json', { outputFile: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ?? '../../artifacts/browser-tests.json' }]],
  use: {
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-quic', '--disable-component-update', '--disable-sync', '--disable-background-networking', '--no-first-run'],
    },
    viewport: { width: 1280, height: 800 },
    trace: 'off',
  },
  webServer: [app(demo, demoDb), app(studio, studioDb), app(empty, emptyDb), app(walk, walkDb)],
});
