import { defineConfig } from '@playwright/test';

// Two houses, each with its own data: the story in one, what is tried beside it in the other.
const port = Number(process.env.E2E_PORT ?? 5399);
const root = new URL('../..', import.meta.url).pathname;
const data = process.env.E2E_DATA ?? '/tmp/solvenda-e2e';
const house = (at: number) => ({
  command: `dotnet ${root}src/Solvenda.Web/bin/Release/net10.0/Solvenda.Web.dll --contentRoot ${root}src/Solvenda.Web --demo true --fresh true --port ${at} --data ${data}-${at} --doorLimit 1000 --carrierSeconds 86400`,
  url: `http://127.0.0.1:${at}/healthz`,
  timeout: 120_000,
});

export default defineConfig({
  testDir: '.',
  workers: 2,
  timeout: 90_000,
  expect: { timeout: 15_000 },
  reporter: [['list'], ['./shown.ts']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
  projects: [
    { name: 'story', testMatch: ['story.spec.ts', 'written.spec.ts'], workers: 1, use: { baseURL: `http://127.0.0.1:${port}` } },
    {
      name: 'work',
      testMatch: [
        'records.spec.ts',
        'keyboard.spec.ts',
        'ledger.spec.ts',
        'waiting.spec.ts',
        'sheet.spec.ts',
        'asks.spec.ts',
        'credit.spec.ts',
        'orders.spec.ts',
        'planning.spec.ts',
        'frames.spec.ts',
        'edi.spec.ts',
        'answers.spec.ts',
        'queue.spec.ts',
        'ways.spec.ts',
        'warehouse.spec.ts',
        'empty.spec.ts',
      ],
      workers: 1,
      use: { baseURL: `http://127.0.0.1:${port - 1}` },
    },
  ],
  webServer: [house(port), house(port - 1)],
});
