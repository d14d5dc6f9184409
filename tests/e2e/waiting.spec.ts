import { expect, test, type Page } from '@playwright/test';
import { stepIn } from './house.js';

// What it costs to work through what waits: keys, pointer presses and screens for each request of the demo, counted and printed.

interface Waiting {
  number: string;
  subject: string;
  lines: { needsYou: boolean; proposals: unknown[]; no: number }[];
  overs: { why?: string }[];
  turns: boolean;
}

/** More keys than this for one request is not how anybody wants to spend a morning. */
const MOST_KEYS = 2;

const NOTHING_NEW = ['change', 'cancellation', 'answerToQuote', 'return', 'reminder', 'complaint', 'notForUs'];

async function count(page: Page) {
  await page.addInitScript(() => {
    const add = (of: string) => sessionStorage.setItem(of, String(Number(sessionStorage.getItem(of) ?? 0) + 1));
    addEventListener('keydown', (e) => e.isTrusted && !['Shift', 'Control', 'Alt'].includes(e.key) && add('keys'), true);
    addEventListener('pointerdown', (e) => e.isTrusted && add('presses'), true);
  });
}

const counted = (page: Page) =>
  page.evaluate(() => {
    const of = ['keys', 'presses'].map((k) => Number(sessionStorage.getItem(k) ?? 0)) as [number, number];
    sessionStorage.removeItem('keys');
    sessionStorage.removeItem('presses');
    return of;
  });

async function look(page: Page, number: string): Promise<Waiting | null> {
  const view = await (await page.request.get(`/api/requests/${number}`)).json();
  if (view.state !== 'new' && view.state !== 'needsYou') return null;
  const reading = view.reading;
  return {
    number,
    subject: view.subject,
    lines: reading?.lines ?? [],
    overs: reading?.leftOvers ?? [],
    turns: !!reading?.lines.length && reading.buyerId !== null && !NOTHING_NEW.includes(reading.kind),
  };
}

test('what waits is worked through with few keys', async ({ page }) => {
  await count(page);
  await stepIn(page, 'Nell Havergal');
  const list = await (await page.request.get('/api/lists/requests?filter=open:yes&columns=number&take=100')).json();
  const numbers: string[] = list.rows.map((r: { cells: string[] }) => r.cells[0]!);
  expect(numbers.length).toBeGreaterThan(3);
  const told: string[] = [];
  for (const number of numbers) {
    await page.goto(`/requests/${number}`);
    await expect(page.getByRole('button', { name: /Set aside/ })).toBeVisible();
    await counted(page);
    const screens = new Set([page.url()]);
    let waiting = await look(page, number);
    if (!waiting?.turns) continue;
    for (let step = 0; waiting && step < 20; step++) {
      const doubt = waiting.lines.find((l) => l.needsYou);
      if (!doubt && waiting.overs.length === 0) break;
      const key = doubt ? (doubt.proposals.length ? '1' : 'l') : waiting.overs[0]?.why ? 'l' : '1';
      const answer = page.waitForResponse((r) => r.request().method() === 'POST' && r.url().includes(`/api/requests/${number}/`));
      await page.keyboard.press(key);
      await answer;
      waiting = await look(page, number);
    }
    if (!waiting?.turns) continue;
    await page.keyboard.press('Enter');
    await page.waitForURL(/\/(quotes|orders)\//);
    screens.add(page.url());
    const [keys, presses] = await counted(page);
    told.push(`${number}  keys ${keys}  pointer ${presses}  screens ${screens.size}  ${waiting.subject}`);
    expect(keys, waiting.subject).toBeLessThanOrEqual(MOST_KEYS);
    expect(presses).toBe(0);
    expect(screens.size).toBe(2);
  }
  console.log(told.join('\n'));
  expect(told.length).toBeGreaterThan(2);
});
