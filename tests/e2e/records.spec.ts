import { expect, test, type Page } from '@playwright/test';
import { accessible, line, stepIn } from './house.js';

// What a lead does in an hour: a new buyer with an agreement, a rise from the first of next month, and the question what they will pay in January.
test.describe.configure({ mode: 'serial' });

let page: Page;
const faults: string[] = [];

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext()).newPage();
  page.on('pageerror', (e) => faults.push(e.message));
  page.on('console', (m) => m.type() === 'error' && !m.text().includes('status of 4') && faults.push(m.text()));
  await stepIn(page, 'Leandro Paz');
});

test.afterAll(() => expect(faults).toEqual([]));

async function fill(label: string, text: string) {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(text);
  if ((await field.getAttribute('role')) === 'combobox') {
    await page.getByRole('listbox', { name: 'what fits' }).getByRole('option').first().waitFor();
    await field.press('Enter');
  } else await field.blur();
}

test('a new buyer is made; what a customer needs is asked for', async () => {
  await page.getByRole('link', { name: 'Buyers', exact: true }).click();
  await expect(page.getByRole('table', { name: 'Buyers' })).toContainText('Tressel & Vane Rigging');
  await accessible(page);
  await page.keyboard.press('n');
  await fill('code', 'B-0900');
  await fill('name', 'Whimbrel Slipway');
  await fill('country', 'IE');
  await fill('currency', 'EUR');
  await fill('language', 'en');
  await page.getByRole('button', { name: 'Make it' }).click();
  // All of it at once, each at its field.
  await expect(page.getByRole('alert')).toHaveText([/mail address/, /address for invoices/, /payment terms/, /Incoterm/, /way for documents/]);
  await fill('days to pay', '30');
  await fill('Incoterm', 'DAP');
  await fill('named place', 'Whimbrel');
  await fill('mail', 'office@whimbrel.example');
  await fill('address', 'The Slip, Whimbrel');
  await fill('documents go by', 'mail');
  await fill('deliver to', 'The Slip, Whimbrel');
  await fill('deliver-to country', 'IE');
  await fill('ship from', 'Skerrow quay');
  await fill('account manager', 'Sorcha Quill');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('heading', { name: 'Whimbrel Slipway' })).toBeVisible();
  await accessible(page);
});

test('a change stands in the history; a bad one says what is wrong and is not kept', async () => {
  await fill('phone', '+353 20 555 0199');
  await expect(page.getByRole('region', { name: 'history' })).toContainText('+353 20 555 0199');
  await fill('country', 'Ireland');
  await expect(page.getByRole('alert')).toContainText('not a country');
  // What was typed still stands there to be mended; what is kept is the old value.
  await expect(page.getByLabel('country', { exact: true })).toHaveValue('Ireland');
  await page.reload();
  await expect(page.getByLabel('country', { exact: true })).toHaveValue('IE');
});

test('an agreement for them, and a rise of the family from the first of next month', async () => {
  await page.getByRole('link', { name: 'Make one' }).click();
  await fill('code', 'AG-0900');
  await fill('words', 'chain, Whimbrel');
  await expect(page.getByLabel('buyer', { exact: true })).toHaveValue(/Whimbrel|B-0900/);
  await page.getByLabel('covers').selectOption('family');
  await fill('family', 'chain');
  await page.getByLabel('kind').selectOption('percent off');
  await fill('breaks', '0: 5; 250: 10');
  await page.getByLabel('from', { exact: true }).fill(new Date().toLocaleDateString('sv-SE'));
  await page.getByLabel('from', { exact: true }).blur();
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('heading', { name: 'AG-0900' })).toBeVisible();

  await page.getByRole('link', { name: 'Prices', exact: true }).first().click();
  // The page before has a field of the same name.
  await expect(page.getByRole('heading', { name: /what would they pay/ })).toBeVisible();
  await fill('family', 'chain');
  await fill('by', '4');
  await page.getByRole('button', { name: 'See what moves' }).click();
  await expect(page.getByText(/7\.90 → 8\.22 EUR/)).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: /Put the new prices in from/ }).click();
  await expect(page.getByRole('status')).toContainText('prices are put in from');
});

test('what would they pay in January for 300 m, and why', async () => {
  await page.goto('/records/buyers?filter=Whimbrel');
  await page
    .getByRole('link', { name: 'Whimbrel Slipway' })
    .or(page.getByRole('cell', { name: 'Whimbrel Slipway' }))
    .first()
    .click();
  await expect(page.getByRole('heading', { name: 'Whimbrel Slipway' })).toBeVisible();
  await page.keyboard.press('p');
  await expect(page.getByRole('heading', { name: /what would they pay/ })).toBeVisible();
  await fill('item', 'CHN-SL-10');
  await fill('how much', '300');
  const answer = page.getByLabel('the answer');
  await expect(answer).toContainText('Whimbrel Slipway would pay 7.1100 EUR per m.');
  await page.getByLabel('day').fill(`${new Date().getFullYear() + 1}-01-15`);
  await page.getByLabel('day').blur();
  await expect(answer).toContainText('Whimbrel Slipway would pay 7.3980 EUR per m.');
  await expect(answer.getByLabel('price build')).toContainText('chain, Whimbrel');
  await expect(answer.getByRole('img')).toHaveAccessibleName(/from 0 7\.8090; from 250 7\.3980/);
});

test('from their page a quote starts with one key, and has their defaults', async () => {
  await page.goto('/records/buyers?filter=Whimbrel');
  await page.getByRole('link', { name: 'B-0900' }).click();
  await expect(page.getByText('chain, Whimbrel')).toBeVisible();
  await stepIn(page, 'Sorcha Quill');
  await page.goto('/records/buyers?filter=Whimbrel');
  await page.getByRole('link', { name: 'B-0900' }).click();
  await expect(page.getByRole('button', { name: 'Quote for them' })).toBeVisible();
  await page.keyboard.press('q');
  await page.waitForURL(/\/quotes\/Q/);
  await expect(page.getByText('The Slip, Whimbrel')).toBeVisible();
  await page.getByRole('combobox', { name: 'add a line' }).fill('CHN-SL-10 x 300');
  await page.getByRole('combobox', { name: 'add a line' }).press('Enter');
  await expect(line(page, 'CHN-SL-10')).toContainText('7.1100');
  await expect(page.getByLabel('tally')).toContainText('freight DAP');
});

test('a long list filters and sorts in the server; a file comes back as it went', async () => {
  await stepIn(page, 'Leandro Paz');
  await page.goto('/records/items?filter=family:rope weight>0.1');
  await expect(page.getByRole('table', { name: 'Items' })).toContainText('PS3-16');
  await page.getByRole('button', { name: 'words' }).click();
  await accessible(page);
  const file = await (await page.request.get('/api/lists/items/export?format=csv')).body();
  await page.goto('/records/items/import');
  await page.locator('input[type=file]').setInputFiles({ name: 'items.csv', mimeType: 'text/csv', buffer: file });
  await expect(page.getByLabel('the import')).toContainText(/0 new, 0 changed, \d+ the same/);
  await accessible(page);
  await page.locator('input[type=file]').setInputFiles({
    name: 'bad.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('code,words,family,unit\nNEW-1,A thing,ropes,MTR\n'),
  });
  await expect(page.getByLabel('the import')).toContainText('there is no family “ropes”');
});

test('all that fit a filter are changed at once, and the list has a foot over all of them', async () => {
  await stepIn(page, 'Leandro Paz');
  await page.goto('/records/items?filter=family:chain');
  const table = page.getByRole('table', { name: 'Items' });
  await expect(table).toContainText('CHN-SL-10');
  await page.getByRole('button', { name: 'columns' }).click();
  await page.getByLabel('lead time').check();
  await expect(table.locator('tfoot')).toContainText(/\d/);
  await page.getByRole('button', { name: 'columns' }).click();
  await page.keyboard.press('a');
  const many = Number((await page.getByText(/ chosen$/).innerText()).replace(/\D/g, ''));
  expect(many).toBeGreaterThan(1);
  await page.getByRole('combobox', { name: /^set/ }).selectOption('lead time');
  await page.getByLabel('to', { exact: true }).fill('9');
  await page.getByRole('button', { name: 'Change all of them' }).click();
  await expect(page.getByText(`${many} changed.`)).toBeVisible();
  await expect(table.locator('tfoot')).toContainText('9');
  await accessible(page);
});

test('an item goes, and what follows it is said in the same step', async () => {
  await page.goto('/records/items?filter=CHN-SL-08');
  await page.getByRole('link', { name: 'CHN-SL-08' }).click();
  await page.getByRole('button', { name: 'Switch off…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Switch it off?' });
  await dialog.getByLabel('what follows it').fill('CHN-SL-10');
  await dialog.getByRole('option').first().waitFor();
  await dialog.getByLabel('what follows it').press('Enter');
  await dialog.getByLabel('why?').fill('no longer made');
  await dialog.getByRole('button', { name: 'Switch off' }).click();
  await expect(page.getByText('switched off', { exact: true }).first()).toBeVisible();
  await expect(page.getByLabel('successor')).toHaveValue('CHN-SL-10');
  await expect(page.getByRole('region', { name: 'history' })).toContainText('no longer made');
});

test('every page is open to everybody: axe finds nothing on any of them', async ({ page }) => {
  test.setTimeout(180_000);
  await stepIn(page, 'Leandro Paz');
  const { items } = await (await page.request.get('/api/desk')).json();
  const ask = items.find((i: { kind: string }) => i.kind === 'ask');
  const quote = (await (await page.request.get('/api/lists/quotes?take=1')).json()).rows[0].calls;
  const paths = [
    `/quotes/${quote}`,
    '/records/items/1',
    '/records/items/new',
    '/records/items/import',
    '/records/buyers/1',
    '/records/agreements/1',
    '/records/buyer-codes?filter=active:no',
    '/prices',
    '/post',
    ...(ask ? [ask.path] : []),
  ];
  for (const path of paths) {
    await page.goto(path);
    await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
    await page.waitForLoadState('networkidle');
    await accessible(page);
  }
});
