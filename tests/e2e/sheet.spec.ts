import { expect, test, type Page } from '@playwright/test';
import { accessible, stepIn } from './house.js';

// The sheet as somebody works on it all day: by keys alone, with others, and with what the buyer chooses.

async function count(page: Page) {
  await page.addInitScript(() => {
    const add = (of: string) => sessionStorage.setItem(of, String(Number(sessionStorage.getItem(of) ?? 0) + 1));
    addEventListener('keydown', (e) => e.isTrusted && !['Shift', 'Control', 'Alt'].includes(e.key) && add('keys'), true);
    addEventListener('pointerdown', (e) => e.isTrusted && add('presses'), true);
  });
}

const counted = (page: Page) => page.evaluate(() => ['keys', 'presses'].map((k) => Number(sessionStorage.getItem(k) ?? 0)) as [number, number]);

const rows = (page: Page) => page.locator('tr[data-line]');

async function newQuote(page: Page, matter: string): Promise<string> {
  const made = await (await page.request.post('/api/quotes', { data: { buyerId: 1, matter } })).json();
  await page.goto(`/quotes/${made.number}`);
  await expect(page.getByRole('combobox', { name: 'add a line' })).toBeVisible();
  return made.number;
}

test('a quote of twenty lines is typed without the mouse, in under 500 keys, and nothing but the sheet is visited', async ({ page }) => {
  await count(page);
  await stepIn(page, 'Sorcha Quill');
  await newQuote(page, 'twenty lines');
  const screens = new Set([new URL(page.url()).pathname]);
  page.on('framenavigated', (frame) => frame === page.mainFrame() && screens.add(new URL(frame.url()).pathname));
  const before = await counted(page);
  await page.keyboard.press('n');
  const typed = [
    '# Running rigging',
    'bb2-10-nv 180',
    'ps3-12-wh 2 coil',
    'svc-eye 8',
    'thimble 12 x 20',
    'svc-sew 4',
    '# Moorings',
    'set-moor-10 2',
    'set-moor-13 1',
    'chn-sl-10 30',
    'shk-bow-10 12',
    'shk-bow-12 6 -3%',
    'fnd-a3-bl 4 @64.50',
    '? svc-tst 2',
    '# Stores',
    'flr-hh-4 6',
    'fender a2 x 3',
    'chn-sl-08 20',
    'ps3-16-bk 100',
    'svc-cut 10',
    'svc-lbl 12',
    'shk-bow-08 25',
    'bb2-12-nv 60',
  ];
  for (const text of typed) {
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  }
  await expect(rows(page)).toHaveCount(typed.length, { timeout: 30_000 });
  // Freight by hand, from the head: the one term that is typed here.
  const [keys, presses] = (await counted(page)).map((n, i) => n - before[i]!) as [number, number];
  console.log(`twenty lines, three headings: ${keys} keys, ${presses} presses, ${screens.size} screen`);
  expect(await page.locator('tr[data-line] .needs').count()).toBe(0);
  await expect(page.getByLabel('tally')).toContainText('freight DAP');
  expect(keys).toBeLessThan(500);
  expect(presses).toBe(0);
  expect(screens.size).toBe(1);
});

test('lines are picked and changed together, put under a heading, and taken back as one step', async ({ page }) => {
  await stepIn(page, 'Sorcha Quill');
  await newQuote(page, 'together');
  const add = page.getByRole('combobox', { name: 'add a line' });
  for (const text of ['SHK-BOW-10 x 12', 'SHK-BOW-12 x 12', 'SVC-EYE x 4']) {
    await add.fill(text);
    await add.press('Enter');
  }
  await expect(rows(page)).toHaveCount(3);
  await add.press('ArrowUp');
  await page.keyboard.press('Shift+ArrowUp');
  const bar = page.getByRole('toolbar', { name: 'lines that are picked' });
  await expect(bar).toContainText('2 lines');
  await bar.getByRole('button', { name: 'less', exact: true }).click();
  await page.keyboard.type('4');
  await page.keyboard.press('Enter');
  await expect(rows(page).filter({ hasText: '4 %' })).toHaveCount(2);
  await bar.getByRole('button', { name: 'under a heading' }).click();
  await page.keyboard.type('Tackle');
  await page.keyboard.press('Enter');
  await expect(rows(page)).toHaveCount(4);
  await expect(rows(page).nth(1)).toContainText('Tackle');
  await page.keyboard.press('Escape');
  await page.locator('body').press('Control+z');
  await expect(rows(page)).toHaveCount(3);
  await page.locator('body').press('Control+z');
  await expect(rows(page).filter({ hasText: '4 %' })).toHaveCount(0);
  await accessible(page);
});

test('two people in one quote lose nothing and see each other', async ({ browser }) => {
  const [sorcha, bastian] = await Promise.all([0, 1].map(async () => (await browser.newContext()).newPage()));
  await stepIn(sorcha!, 'Sorcha Quill');
  await stepIn(bastian!, 'Bastian Mohr');
  const number = await newQuote(sorcha!, 'two at once');
  await bastian!.goto(`/quotes/${number}`);
  await expect(sorcha!.getByText(/Bastian Mohr is looking/)).toBeVisible();
  await expect(bastian!.getByText(/Sorcha Quill is looking/)).toBeVisible();
  for (const [page, text] of [
    [sorcha!, 'SHK-BOW-10 x 12'],
    [bastian!, 'SVC-EYE x 4'],
    [sorcha!, 'BB2-10-NV 180'],
  ] as const) {
    const add = page.getByRole('combobox', { name: 'add a line' });
    await add.fill(text);
    await add.press('Enter');
    await expect(rows(sorcha!).filter({ hasText: text.split(' ')[0]! })).toHaveCount(1);
    await expect(rows(bastian!).filter({ hasText: text.split(' ')[0]! })).toHaveCount(1);
  }
  // Both type into what they see; whoever is later is told, and what they typed is kept for them.
  for (const page of [sorcha!, bastian!]) await rows(page).filter({ hasText: 'SHK-BOW-10' }).locator('td').nth(3).click();
  await expect(bastian!.getByText(/Sorcha Quill is here/)).toBeVisible();
  await Promise.all([sorcha!.keyboard.type('20'), bastian!.keyboard.type('30')]);
  await Promise.all([sorcha!.keyboard.press('Enter'), bastian!.keyboard.press('Enter')]);
  const shackle = (page: Page) => rows(page).filter({ hasText: 'SHK-BOW-10' }).locator('td').nth(3);
  await expect(shackle(sorcha!)).toHaveText(/^(20|30)/);
  await expect(async () => expect(await shackle(sorcha!).innerText()).toBe(await shackle(bastian!).innerText())).toPass();
  const taken = (await shackle(sorcha!).innerText()).startsWith('20') ? bastian! : sorcha!;
  const other = taken === sorcha! ? '20' : '30';
  const kept = taken.getByRole('button', { name: /again/ });
  if (await kept.count()) {
    await kept.click();
    await expect(shackle(taken)).toHaveText(new RegExp(`^${other}`));
  }
});

test('the buyer chooses on their page, and what they took becomes the order', async ({ page, browser }) => {
  await stepIn(page, 'Sorcha Quill');
  const number = await newQuote(page, 'to choose from');
  const add = page.getByRole('combobox', { name: 'add a line' });
  for (const text of ['SHK-BOW-10 x 12', 'or SHK-BOW-12 x 12', '? SVC-EYE 4']) {
    await add.fill(text);
    await add.press('Enter');
  }
  await expect(rows(page)).toHaveCount(3);
  await expect(rows(page).nth(1)).toContainText('1b');
  await add.blur();
  await page.keyboard.press('s');
  const letter = page.getByRole('dialog', { name: 'send the quote' });
  await expect(letter).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(letter).toBeHidden();
  await page.goto('/post');
  await page.getByText(new RegExp(number)).first().click();
  const href = await page.locator('a[href*="/offer/"]').first().getAttribute('href');
  const buyer = await (await browser.newContext()).newPage();
  await buyer.goto(new URL(href!).pathname);
  const total = buyer.locator('article dl').last().locator('dd').last();
  const asSent = await total.innerText();
  await buyer.getByRole('radio').nth(1).check();
  await expect(total).not.toHaveText(asSent);
  await buyer.getByRole('checkbox').check();
  await expect(buyer.getByRole('checkbox')).toBeChecked();
  await accessible(buyer);
  await buyer.getByRole('button', { name: /^Accept this quote/ }).click();
  await buyer.getByLabel('your name').fill('Fionn');
  await buyer.getByRole('button', { name: 'Accept', exact: true }).click();
  await expect(buyer.getByText('You accepted this quote')).toBeVisible();
  await page.goto(`/quotes/${number}`);
  await expect(rows(page).nth(0)).not.toContainText('one of these');
});

test('what would it take, lines from elsewhere, files and what stands beside are open to everybody', async ({ page }) => {
  await stepIn(page, 'Sorcha Quill');
  await newQuote(page, 'around it');
  await page.keyboard.press('g');
  const sources = page.getByRole('dialog', { name: 'lines from elsewhere' });
  await sources.getByRole('button', { name: /S26-/ }).first().click();
  await sources.getByRole('button', { name: /^Take \d/ }).click();
  await expect(sources).toBeHidden();
  await expect(rows(page).first()).toBeVisible();
  await page.keyboard.press('t');
  await page.getByLabel('wished total, or margin').fill('30 %');
  await expect(page.getByLabel('what would it take')).toContainText('30.0 %');
  await accessible(page);
  await page.getByLabel('wished total, or margin').press('Escape');
  await page.keyboard.press('j');
  const files = page.getByRole('dialog', { name: 'files' });
  await files.locator('input[type=file]').setInputFiles({ name: 'yard.png', mimeType: 'image/png', buffer: Buffer.from('89504e470d0a1a0a', 'hex') });
  await expect(files.getByText('yard.png')).toBeVisible();
  await accessible(page);
});
