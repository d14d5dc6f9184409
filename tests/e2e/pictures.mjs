// Walks the story on a fresh demo world and keeps a picture of each main view in docs/screenshots.
// Run by `./solvenda pictures`; takes the address of a running demo.
import { chromium } from 'playwright-core';

const [base] = process.argv.slice(2);
const into = new URL('../../docs/screenshots/', import.meta.url).pathname;
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run'],
});
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
page.on('pageerror', (e) => {
  throw e;
});

const look = async (name, theme = 'paper') => {
  await page.evaluate((t) => (document.documentElement.dataset.theme = t), theme);
  await page.mouse.move(640, 799);
  await page.waitForTimeout(500);
  await page.screenshot({ path: `${into}${name}.png` });
  await page.evaluate(() => (document.documentElement.dataset.theme = 'paper'));
};
const stepIn = async (name) => {
  await page.goto(`${base}/step-in`);
  await page.getByRole('button', { name }).click();
  await page.getByRole('heading', { name: /need|Nothing/ }).waitFor();
};
const line = (code) => page.locator('tr[data-line]').filter({ hasText: code });
const type = async (code, cell, text) => {
  const settled = page.waitForResponse((r) => r.url().endsWith('/edits'));
  await line(code).locator('td').nth(cell).click();
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
  await settled;
};
const add = async (text) => {
  const field = page.getByRole('combobox', { name: 'add a line' });
  const found = page.waitForResponse((r) => r.url().includes('/entry?'));
  await field.fill(text);
  if (!text.startsWith('#')) await found;
  const settled = page.waitForResponse((r) => r.url().endsWith('/edits'));
  await field.press('Enter');
  await settled;
};
const click = (name) => page.getByRole('button', { name, exact: true }).click();
const reason = async (label, words, button) => {
  await page.getByRole('textbox', { name: label }).fill(words);
  const answer = page.waitForResponse((r) => r.request().method() === 'POST');
  await click(button);
  await answer;
};

await stepIn('Nell Havergal');
await look('desk');
await page.getByRole('link', { name: /Tressel & Vane/ }).first().click();
await page.getByLabel('the reading').getByText('180 m ?').waitFor();
await look('reading');
await page.keyboard.press('1');
await page.getByLabel('the reading').getByText('180 m ?').waitFor({ state: 'detached' });
await page.keyboard.press('Enter');
await page.waitForURL(/\/quotes\/Q/);
const quote = page.url();

await stepIn('Sorcha Quill');
await page.goto(quote);
await add('thimble 12 x 20');
await add('# Ground tackle');
await add('chain 10mm x 30 m');
await add('fender A3 x 4 -5%');
await type('BB2-10-NV', 5, '12');
await line('BB2-10-NV').locator('td').nth(5).click();
await look('sheet');
await look('sheet-night', 'night');
await click('Ask Leandro Paz');
await reason(/why/, 'They have an offer from elsewhere and take the rest at list.', 'Ask');

await stepIn('Leandro Paz');
await page.getByRole('link', { name: /Tressel & Vane.*your answer/ }).click();
await page.getByRole('button', { name: /^Grant \d/ }).waitFor();
await look('ask');
await page.setViewportSize({ width: 390, height: 844 });
await look('ask-phone');
await page.setViewportSize({ width: 1280, height: 800 });
const granted = page.waitForResponse((r) => r.url().endsWith('/grant'));
await page.keyboard.press('g');
await granted;

await stepIn('Sorcha Quill');
await page.goto(quote);
await click('Send it…');
await page.getByRole('button', { name: 'Send', exact: true }).waitFor();
await look('letter');
await click('Send');
await page.getByText('with the buyer, not opened yet').waitFor();
await page.goto(`${base}/post`);
await page.getByRole('button', { name: /Quote Q/ }).first().click();
const offer = await page.getByRole('link', { name: /\/offer\// }).getAttribute('href');
await page.goto(offer);
await page.getByRole('button', { name: 'Accept this quote…' }).waitFor();
await page.waitForTimeout(1500);
await look('offer');
await page.getByRole('button', { name: 'Accept this quote…' }).click();
await page.getByLabel('your name').fill('Fionn Tressel');
await page.getByLabel(/your PO number/).fill('TV-2611');
await click('Accept');
await page.getByText('You accepted this quote').waitFor();

await stepIn('Nell Havergal');
await page.getByRole('link', { name: /Tressel & Vane.*accepted/ }).click();
await click('Make the order');
await page.waitForURL(/\/orders\/S/);
await look('order');
await page.goto(`${base}/orders`);
await page.getByRole('table').waitFor();
await look('orders');
await stepIn('Leandro Paz');
await page.goto(`${base}/records/buyers/1`);
await page.getByText('Bought in two years').waitFor();
await look('buyer');
await page.goto(`${base}/records/items/3`);
await page.getByText('Sold to').waitFor();
await look('item');
await page.goto(`${base}/prices?buyer=B-0001&item=BB2-10-NV`);
await page.getByLabel('how much').fill('300');
await page.getByText('would pay').waitFor();
await look('prices');
await stepIn('Cass Whitlock');
await page.goto(`${base}/credit`);
await page.getByRole('heading', { level: 1, name: /^Credit/ }).waitFor();
await look('credit');
await page.goto(`${base}/setup/authority`);
await page.getByRole('button', { name: 'Sorcha Quill, discount: 8 %' }).click();
await page.getByLabel('Sorcha Quill, discount').fill('10');
await page.getByText(/^\d+ → \d+$/).waitFor();
await look('authority');
await page.goto(`${base}/setup/policies`);
await page.getByRole('button', { name: /not holding yet/ }).click();
await page.getByText('who would have been asked').waitFor();
await look('policies');
await stepIn('Juno Castellane');
await page.goto(`${base}/planning`);
await page.getByRole('row').filter({ hasText: 'SHK-DEE-12' }).getByRole('link').click();
await page.getByText('who waits for it').waitFor();
await look('outlook');
await page.goto(`${base}/goods`);
await page.getByRole('checkbox', { checked: true }).first().waitFor();
await look('goods');
await stepIn('Petra Vantongeren');
await page.goto(`${base}/ledger/bank`);
await page.getByRole('button', { name: /Take statement/ }).waitFor();
await page.keyboard.press('t');
await page.getByText(/went by themselves, \d+ need you/).waitFor();
await look('bank');

await browser.close();
