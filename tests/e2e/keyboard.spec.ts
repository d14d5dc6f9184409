import { expect, test } from '@playwright/test';
import { accessible, stepIn } from './house.js';

// What was found at the keyboard: nothing that cannot be undone happens by itself, and nothing is lost.

test('Enter in a field of the letter sends nothing; Ctrl+Enter does', async ({ page }) => {
  await stepIn(page, 'Sorcha Quill');
  await page.goto('/quotes');
  await page
    .getByRole('row')
    .filter({ hasText: /Drafting|in draft|draft/i })
    .first()
    .getByRole('link')
    .first()
    .click();
  await page.waitForURL(/\/quotes\/Q/);
  const send = page.getByRole('button', { name: 'Send it…' });
  test.skip(!(await send.isEnabled()), 'nothing of hers waits to be sent');
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
  await page.waitForResponse((r) => r.url().endsWith('/api/desk'));
  await expect(items.nth(0)).toHaveClass(/bg-sheet/);
});

test('the arrow leads out of the entry row onto the line above, and keys work there', async ({ page }) => {
  await stepIn(page, 'Sorcha Quill');
  await page.request.post('/api/quotes', { data: { buyerId: 1, matter: 'keys' } }).then(async (made) => page.goto(`/quotes/${(await made.json()).number}`));
  const add = page.getByRole('combobox', { name: 'add a line' });
  await add.fill('thimble 12 x 20');
  const list = page.getByRole('listbox', { name: 'items' });
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
  await expect(page.getByRole('option', { name: /THM-SS-12/ })).toBeVisible();
  // The list for the new words is held back: what it still shows is for the old ones.
  await page.route('**/api/items?*', (route) => new Promise((done) => setTimeout(done, 1500)).then(() => route.continue()));
  await add.fill('SHK-BOW-10 x 4');
  await add.press('Enter');
  await expect(page.locator('tr[data-line]').filter({ hasText: 'SHK-BOW-10' })).toBeVisible();
  await expect(page.locator('tr[data-line]').filter({ hasText: 'THM-SS-12' })).toHaveCount(0);
});

test('what the house could not do by itself is on its administrator’s desk alone', async ({ page }) => {
  await stepIn(page, 'Whitlock');
  await page.getByRole('link', { name: 'House' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('what did not work by itself');
  await accessible(page);
  for (const kind of ['agreements', 'buyer-codes']) {
    await page.goto(`/records/${kind}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await accessible(page);
  }
  await stepIn(page, 'Sorcha Quill');
  await expect(page.getByRole('link', { name: 'House' })).toHaveCount(0);
});
