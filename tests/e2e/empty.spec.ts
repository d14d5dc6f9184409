import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';

// A house from nothing, as the guide says (docs/guide/setup.md): the console's link, a person with authority, what is sold to whom, the first quote sent.

const root = new URL('../..', import.meta.url).pathname;
const port = Number(process.env.E2E_PORT ?? 5399) - 2;
const base = `http://127.0.0.1:${port}`;
let server: ChildProcess;
let data: string;
let first = '';

test.beforeAll(async () => {
  data = mkdtempSync(join(tmpdir(), 'solvenda-empty-'));
  const args = `${root}src/Solvenda.Web/bin/Release/net10.0/Solvenda.Web.dll --contentRoot ${root}src/Solvenda.Web --port ${port} --data ${data} --publicAddress ${base}`;
  server = spawn('dotnet', args.split(' '));
  let said = '';
  await new Promise<void>((ready, failed) => {
    server.stdout!.on('data', (text: Buffer) => {
      said += text.toString();
      if (said.includes('is ready')) ready();
    });
    server.on('exit', () => failed(new Error(said)));
  });
  first = /\/first\/(\S+)/.exec(said)?.[0] ?? '';
});

test.afterAll(() => {
  server.removeAllListeners('exit');
  server.kill('SIGKILL');
  rmSync(data, { recursive: true, force: true });
});

async function fill(page: Page, label: string, text: string) {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(text);
  if ((await field.getAttribute('role')) === 'combobox') {
    await page.getByRole('listbox', { name: 'what fits' }).getByRole('option').first().waitFor();
    await field.press('Enter');
  } else await field.blur();
}

async function make(page: Page, kind: string, heading: string, fields: Record<string, string>, choices: Record<string, string> = {}) {
  await page.goto(`${base}/records/${kind}/new`);
  for (const [label, text] of Object.entries(fields)) await fill(page, label, text);
  for (const [label, choice] of Object.entries(choices)) await page.getByLabel(label, { exact: true }).selectOption(choice);
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('heading', { name: heading }).first()).toBeVisible();
}

test('an empty house is set up to its first quote sent', async ({ page, browser }) => {
  test.setTimeout(240_000);
  page.setDefaultTimeout(20_000);
  expect(first).toMatch(/^\/first\/.+/);
  await page.goto(base + first);
  await page.getByLabel('your name').fill('Orla Venn');
  await page.getByLabel('name to sign in with').fill('orla');
  await page.getByLabel(/^password/).fill('nine fathoms deep');
  await page.getByRole('button', { name: 'Begin' }).click();

  // Somebody who sells; no mail server is set, so the link is shown.
  await page.getByRole('link', { name: 'Setup' }).click();
  await page.getByRole('button', { name: 'Invite somebody' }).click();
  const form = page.getByRole('form', { name: 'somebody new' });
  await form.getByLabel('signs in as').fill('una');
  await form.getByLabel('name', { exact: true }).fill('Una Marsh');
  await form.getByLabel('does').fill('sales');
  await form.getByLabel('mail').fill('una@marsh.example');
  for (const role of [/^order desk/, /^seller/, /^lead/]) await form.getByRole('checkbox', { name: role }).check();
  await form.getByRole('button', { name: 'Invite them' }).click();
  const link = await page.getByText(/\/welcome\//).innerText();

  // What she may decide alone: nobody holds it yet, so the administrator names the first.
  await page.getByRole('link', { name: 'authority' }).click();
  for (const [kind, limit, said] of [
    ['discount', '20', '20 %'],
    ['least margin', '15', '15 %'],
    ['worth up to', 'any', 'any'],
  ] as const) {
    await page.getByRole('button', { name: `Una Marsh, ${kind}: none` }).click();
    await page.getByLabel(`Una Marsh, ${kind}`).fill(limit);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: `Una Marsh, ${kind}: ${said}` })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Orla Venn, discount: none' }).click();
  await page.getByLabel('Orla Venn, discount').fill('5');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('Nobody widens what they may decide themselves.');

  const una = await (await browser.newContext()).newPage();
  una.setDefaultTimeout(20_000);
  await una.goto(link.trim());
  await expect(una.getByRole('heading', { name: 'Welcome, Una Marsh' })).toBeVisible();
  await una.getByLabel(/your password/).fill('low water at the quay');
  await una.getByRole('button', { name: 'Come in' }).click();
  await expect(una.getByRole('link', { name: 'Quotes' })).toBeVisible();

  await make(una, 'price-lists', 'house', { code: 'house', words: 'our list' });
  await make(una, 'families', 'rope', { code: 'rope', words: 'ropes', 'least margin': '20' });
  await make(una, 'items', 'ROPE-10', { code: 'ROPE-10', words: 'rope 10 mm', family: 'rope', 'stock unit': 'MTR', 'lead time': '5', weight: '0.06' });
  await make(una, 'costs', 'ROPE-10', { item: 'ROPE-10', from: '2026-01-01', cost: '1.20' });
  await make(una, 'prices', 'ROPE-10', { list: 'house', item: 'ROPE-10', unit: 'MTR', price: '2.50', currency: 'EUR', per: '1', from: '2026-01-01' });
  await make(una, 'tax-rates', 'standard', { country: 'IE', percent: '23', from: '2020-01-01' });
  await make(una, 'buyers', 'Low Pier Yard', {
    code: 'B-0001',
    name: 'Low Pier Yard',
    country: 'IE',
    currency: 'EUR',
    language: 'en',
    mail: 'fi@lowpier.example',
    contact: 'Fi Low',
    address: 'Low Pier',
    'deliver to': 'Low Pier',
    'deliver-to country': 'IE',
    'days to pay': '30',
    Incoterm: 'EXW',
    'named place': 'our yard',
    'documents go by': 'mail',
    'account manager': 'Una Marsh',
  });

  await una.keyboard.press('/');
  await una.keyboard.type('low pier');
  await una.getByRole('option', { name: /quote for.*Low Pier Yard/ }).click();
  await una.waitForURL(/\/quotes\/Q/);
  const add = una.getByRole('combobox', { name: 'add a line' });
  await add.fill('ROPE-10 x 50 m');
  await expect(una.getByRole('option', { name: /ROPE-10 rope/ })).toBeVisible();
  await add.press('Enter');
  await expect(una.getByLabel('tally')).toContainText('153.75');
  await una.getByRole('button', { name: /^Send it…/ }).click();
  await una.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(una.getByText('with the buyer, not opened yet')).toBeVisible();
});
