import { resolve } from 'node:path';
import { defineConfig } from '@playwright/test';

const app = (port, database) => ({
  command: `dotnet ../../artifacts/bin/Web/release_linux-x64/UnrulyMeadow.Web.dll --urls http://127.0.0.1:${port} --contentRoot ${resolve('../../src/Web')}`,
  url: `http://127.0.0.1:${port}/health`,
  env: { ...process.env, MEADOW_DB: database, MEADOW_WRITES_PER_MINUTE: '600000', ASPNETCORE_ENVIRONMENT: 'Production' },
  timeout: 60_000,
  reuseExistingServer: false,
});

const sites = ['DEMO', 'STUDIO', 'DESK', 'EMPTY', 'WALK', 'NEW'].map((name) => [process.env[`MEADOW_${name}_PORT`], process.env[`MEADOW_${name}_DB`]]);
if (sites.flat().some((part) => !part)) throw new Error('Run the browser tests with ./meadow test; it makes the databases they need.');

export default defineConfig({
  testDir: '.',
  workers: 2,
  // Long walks on a busy machine take minutes; a hanging one still ends.
  timeout: 240_000,
  expect: { timeout: 45_000 },
  // A machine that stood still for a minute is not a fault; what passed only the second time is named.
  retries: 1,
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
  webServer: sites.map(([port, database]) => app(port, database)),
});
