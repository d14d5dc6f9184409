import { expect, test } from '@playwright/test';
import { accessible, stepIn } from './house.js';

// What was found at the keyboard: nothing that cannot be undone happens by itself, and nothing is lost.

test('Enter in a field of the letter sends nothing; Ctrl+Enter does', async ({ page }) => {
  await stepIn(page, 'Sorcha Quill');
  const headers = { origin: new URL(page.url()).origin };
  const made = await (await page.request.post('/api/quotes', { data: { buyerId: 1, matter: 'letters' }, headers })).json();
  const { sheet } = await (await page.request.get(`/api/quotes/${made.number}`)).json();
  await page.request.post(`/api/sheets/${sheet.id}/edits`, {
    data: [{ kind: 'add', value: 'SHK-BOW-10 x 10' }],
    headers: { ...headers, 'if-match': `"${sheet.version}"` },
  });
  await page.goto(`/quotes/${made.number}`);
  const send = page.getByRole('button', { name: 'Send it…' });
  await send.click();
  const letter = page.getByRole('dialog', { name: 'send the quote' });
  await letter.getByLabel('subject').fill('A new subject');
  await letter.getByLabel('subject').press('Enter');
  await expect(letter).toBeVisible();
  await expect(letter.getByLabel(/^letter/)).toBeFocused();
  await page.keyboard.press('Control+Enter');
  await expect(letter).toBeHidden();
  await expect(send).toHaveCount(0);
});

test('a pointer that rests chooses nothing when the list moves under it', async ({ page }) => {
  await stepIn(page, 'Nell Havergal');
  const items = page.locator('[data-item]');
  const box = (await items.nth(2).boundingBox())!;
  await page.mouse.move(box.x + 40, box.y + 10);
  await page.keyboard.press('k');
  await page.keyboard.press('k');
  await expect(items.nth(0)).toHaveClass(/bg-sheet/);
  await page.mouse.wheel(0, 1);
  const again = page.waitForResponse((r) => r.url().endsWith('/api/desk'));
  await page.request.post('/api/quotes', { data: { buyerId: 1, matter: 'something moves' } });
  await again;
  await expect(items.nth(0)).toHaveClass(/bg-sheet/);
});

test('the arrow leads out of the entry row onto the line above, and keys work there', async ({ page }) => {
  await stepIn(page, 'Sorcha Quill');
  await page.request.post('/api/quotes', { data: { buyerId: 1, matter: 'keys' } }).then(async (made) => page.goto(`/quotes/${(await made.json()).number}`));
  const add = page.getByRole('combobox', { name: 'add a line' });
  await add.fill('thimble 12 x 20');
  const list = page.getByRole('listbox', { name: 'what is meant' });
  await expect(list).toBeInViewport({ ratio: 1 });
  await add.press('Enter');
  const line = page.locator('tr[data-line]').filter({ hasText: 'THM-SS-12' });
  await expect(line).toBeVisible();
  await add.press('ArrowUp');
  await expect(line.locator('td:focus')).toHaveCount(1);
  await page.keyboard.press('Delete');
  await expect(line).toHaveCount(0);
});

test('Enter takes the chosen item only where the list is for what was typed', async ({ page }) => {
  await stepIn(page, 'Sorcha Quill');
  await page.request.post('/api/quotes', { data: { buyerId: 1, matter: 'fast' } }).then(async (made) => page.goto(`/quotes/${(await made.json()).number}`));
  const add = page.getByRole('combobox', { name: 'add a line' });
  await add.fill('thimble 12');
  await expect(page.getByRole('option', { name: /THM-SS-12/ }).first()).toBeVisible();
  // The list for the new words is held back: what it still shows is for the old ones.
  await page.route('**/entry?*', (route) => new Promise((done) => setTimeout(done, 1500)).then(() => route.continue()));
  await add.fill('SHK-BOW-10 x 4');
  await add.press('Enter');
  await expect(page.locator('tr[data-line]').filter({ hasText: 'SHK-BOW-10' })).toBeVisible();
  await expect(page.locator('tr[data-line]').filter({ hasText: 'THM-SS-12' })).toHaveCount(0);
});

test('what the house could not do by itself is on its administrator’s desk alone', async ({ page }) => {
  await stepIn(page, 'Whitlock');
  await page.getByRole('link', { name: 'Setup' }).click();
  await page.getByRole('link', { name: 'the house' }).click();
  await page.getByRole('link', { name: 'What did not work' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('what did not work by itself');
  await accessible(page);
  for (const kind of ['agreements', 'buyer-codes']) {
    await page.goto(`/records/${kind}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await accessible(page);
  }
  await stepIn(page, 'Sorcha Quill');
  await expect(page.getByRole('link', { name: 'Setup' })).toHaveCount(0);
});

test('an open page follows what somebody else does, without a reload and without losing what is typed', async ({ browser }) => {
  const [mine, theirs] = [await browser.newPage(), await browser.newPage()];
  await stepIn(mine, 'Sorcha Quill');
  await stepIn(theirs, 'Leandro Paz');
  const { number } = await (await mine.request.post('/api/quotes', { data: { buyerId: 1, matter: 'two of us' } })).json();
  await mine.goto(`/quotes/${number}`);
  const entry = mine.getByRole('combobox', { name: 'add a line' });
  await entry.fill('half typed');
  await theirs.goto(`/quotes/${number}`);
  const add = theirs.getByRole('combobox', { name: 'add a line' });
  await add.fill('SHK-BOW-10 x 4');
  await add.press('Enter');
  await expect(mine.locator('tr[data-line]').filter({ hasText: 'SHK-BOW-10' })).toBeVisible();
  await expect(entry).toHaveValue('half typed');
  // A list follows too: what is new stands in it by itself.
  await theirs.goto('/quotes');
  await expect(theirs.getByRole('row').filter({ hasText: number })).toBeVisible();
  const made = await (await mine.request.post('/api/quotes', { data: { buyerId: 2, matter: 'newer' } })).json();
  await expect(theirs.getByRole('row').filter({ hasText: made.number })).toBeVisible();
  await Promise.all([mine.close(), theirs.close()]);
});

test('a list of documents is narrowed, sorted, chosen from and kept as a view', async ({ page }) => {
  await stepIn(page, 'Leandro Paz');
  await page.goto('/orders');
  const count = async () => Number(((await page.locator('h1 + span').textContent()) ?? '').split(' ')[0]!.replace(',', ''));
  await expect.poll(count).toBeGreaterThan(5);
  const open = await count();
  await page.getByRole('button', { name: 'that are not done' }).click();
  await expect.poll(count).toBeGreaterThan(open);
  await page.getByRole('button', { name: 'that are not done' }).click();
  await page.getByLabel('filter').fill('currency:GBP');
  await expect.poll(count).toBeLessThan(open);
  await expect(page.getByLabel('sums')).toContainText('GBP');
  await expect(page.getByLabel('sums')).not.toContainText('EUR');
  await page.getByLabel('filter').press('Enter');
  await page.keyboard.press('x');
  await page.keyboard.press('j');
  await page.keyboard.press('x');
  await expect(page.getByText('2 chosen')).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'keep this view…' }).click();
  await page.getByLabel('as', { exact: true }).fill('in pounds');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('button', { name: 'in pounds', exact: true })).toBeVisible();
  await page.goto('/orders');
  await page.getByRole('button', { name: 'in pounds', exact: true }).click();
  await expect(page.getByLabel('sums')).not.toContainText('EUR');
});
