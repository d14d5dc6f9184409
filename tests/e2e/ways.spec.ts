import { expect, test } from '@playwright/test';
import { accessible, stepIn } from './house.js';

// Ways in that people type on: the telephone, a buyer's own page, a photo from the road; and what is made of a request.

test('what somebody says on the telephone is typed, found and read with few keys', async ({ page }) => {
  await stepIn(page, 'Nell Havergal');
  await page.goto('/phone');
  let keys = 0;
  const press = async (key: string) => {
    keys++;
    await page.keyboard.press(key);
  };
  await expect(page.getByRole('combobox')).toBeFocused();
  await page.keyboard.type('marlin');
  await expect(page.getByRole('option')).toHaveCount(1);
  await press('Enter');
  await expect(page.getByRole('combobox')).toHaveValue('Odile Garrity, Marlinspike Playhouse');
  await accessible(page);
  await page.getByLabel('what they say').fill('200 m PS3-16-BK\n12 x SHK-BOW-10');
  await press('Control+Enter');
  await page.waitForURL(/\/requests\/R/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Marlinspike Playhouse');
  await expect(page.getByText('SHK-BOW-10').first()).toBeVisible();
  expect(keys, 'one key finds the caller, one sends').toBe(2);
});

test('a buyer writes on their own page, which shows no prices, and it waits on the queue', async ({ page, browser }) => {
  await stepIn(page, 'Nell Havergal');
  const buyers = await (await page.request.get('/api/lists/buyers?filter=Lomond')).json();
  await page.goto(`/records/buyers/${buyers.rows[0].id}`);
  const pages = page.getByRole('region', { name: 'pages to write requests on' });
  await pages.getByLabel('who gets a page').fill('Harbour office');
  await pages.getByRole('button', { name: 'Make a page' }).click();
  const address = new URL((await pages.getByRole('status').locator('code').textContent())!);
  const theirs = await (await browser.newContext({ baseURL: new URL(page.url()).origin })).newPage();
  await theirs.goto(address.pathname);
  await expect(theirs.getByRole('heading')).toContainText('Lomond Reach Harbour Trust');
  await accessible(theirs);
  await theirs.getByLabel('we order').check();
  await theirs.getByLabel('what and how much').fill('20 x SHK-BOW-10');
  await theirs.getByLabel('your PO number').fill('LR-2026-9');
  await theirs.getByLabel('your name').fill('Isla Orr');
  await theirs.getByLabel('where we answer').fill('isla@lomondreach.example');
  await theirs.getByRole('button', { name: 'Send it' }).click();
  const said = await theirs.getByRole('status').textContent();
  expect(said).toContain('nothing is ordered or delivered before that');
  await page.goto(`/requests/${/R\d\d-\d+/.exec(said!)![0]}`);
  await expect(page.getByText('portal from Isla Orr')).toBeVisible();
  // Ended, the page is open to nobody.
  await page.goto(`/records/buyers/${buyers.rows[0].id}`);
  await pages.getByRole('button', { name: 'end it' }).first().click();
  await expect(pages).toContainText('ended');
  await theirs.reload();
  await expect(theirs.getByRole('heading')).toHaveText('This page is not open');
});

test('a photo order is sent from a telephone', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 800 });
  await stepIn(page, 'Sorcha Quill');
  await page.goto('/field');
  await expect(page.getByRole('combobox')).toBeFocused();
  await page.keyboard.type('Kittiwake');
  await page.getByRole('option').first().click();
  await page.getByLabel('Take a picture').setInputFiles(new URL('../../docs/screenshots/desk.png', import.meta.url).pathname);
  await expect(page.getByRole('list', { name: 'pictures' }).getByRole('listitem')).toHaveCount(1);
  await accessible(page);
  await page.getByLabel('lines, if you like').fill('10 x SHK-BOW-10');
  await page.getByRole('button', { name: 'Send it to the desk' }).click();
  await expect(page.getByRole('status')).toContainText('The desk has it');
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
});

test('two requests are made of one, and one is put into a matter that is there', async ({ page }) => {
  await stepIn(page, 'Nell Havergal');
  await page.goto('/phone');
  await expect(page.getByRole('combobox')).toBeFocused();
  await page.keyboard.type('spindrift');
  await page.getByRole('option').first().click();
  await page.getByLabel('what they say').fill('20 x SHK-BOW-10\n40 x THM-SS-12');
  await page.keyboard.press('Control+Enter');
  await page.waitForURL(/\/requests\/R/);
  const first = page.url();
  await expect(page.getByRole('button', { name: /Make two/ })).toBeVisible();
  await page.getByRole('button', { name: /Make two/ }).click();
  await page.getByRole('dialog').getByRole('checkbox').last().check();
  await page.keyboard.press('Control+Enter');
  await page.waitForURL((url) => /\/requests\/R/.test(url.pathname) && url.href !== first);
  const beside = page.url();
  await expect(page.getByText('THM-SS-12').first()).toBeVisible();
  await page.goto(first);
  await page.getByRole('button', { name: /Make it an order/ }).click();
  await page.waitForURL(/\/orders\//);
  const order = page.url().split('/').at(-1)!;
  await page.goto(beside);
  await page.getByRole('button', { name: /Goes with/ }).click();
  await page.getByRole('dialog').getByRole('textbox').fill(order);
  const joined = page.waitForResponse((r) => /\/api\/requests\/.*\/dossier$/.test(r.url()));
  await page.keyboard.press('Control+Enter');
  expect((await joined).status()).toBe(200);
  const { dossier } = await (await page.request.get(`/api/requests/${first.split('/').at(-1)}`)).json();
  await expect(page.getByText(`belongs to ${dossier},`)).toBeVisible();
});

test('a file is tried on a way in, and what was not received has a place', async ({ page }) => {
  await stepIn(page, 'Cass Whitlock');
  await page.goto('/setup/ways');
  await page.getByRole('button', { name: /^mail post/ }).click();
  await expect(page.getByRole('heading', { name: /mail is open, takes mail by SMTP on port \d+/ })).toBeVisible();
  await page
    .getByRole('region', { name: 'test with a file' })
    .locator('input')
    .setInputFiles({
      name: 'try.txt',
      mimeType: 'text/plain',
      buffer: Buffer.from('From: office@petrelpointmarina.example\nSubject: order\n\n20 x SHK-BOW-10\n\nPO 4711\n'),
    });
  await expect(page.getByRole('list', { name: 'what would come of try.txt' })).toContainText('Petrel Point Marina');
  await page.goto('/missing');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Not received');
  await accessible(page);
});
