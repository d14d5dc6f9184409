import { defineConfig } from '@playwright/test';

const port = Number(process.env.E2E_PORT ?? 5399);
const root = new URL('../..', import.meta.url).pathname;
const data = process.env.E2E_DATA ?? '/tmp/solvenda-e2e';

export default defineConfig({
  testDir: '.',
  workers: 1,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run'],
    },
  },
  webServer: {
    command: `dotnet ${root}src/Solvenda.Web/bin/Release/net10.0/Solvenda.Web.dll --contentRoot ${root}src/Solvenda.Web --demo true --fresh true --port ${port} --data ${data} --doorLimit 1000`,
    url: `http://127.0.0.1:${port}/healthz`,
    timeout: 120_000,
  },
});
