import { expect, test } from '@playwright/test';
import { accessible, stepIn } from './house.js';

// An order after it was made: confirmed, changed, held, cancelled and taken up again, on its one page.

test('an order is confirmed, changed, held, cancelled and taken up again, without leaving its page', async ({ page }) => {
  await stepIn(page, 'Sorcha Quill');
  const origin = { origin: new URL(page.url()).origin };
  const made = await (await page.request.post('/api/buyers/1/orders', { headers: origin })).json();
  const sheet = (await (await page.request.get(`/api/orders/${made.number}`)).json()).sheet;
  const edits = [
    { kind: 'add', value: 'SHK-BOW-10 x 4' },
    { kind: 'set', field: 'poNumber', value: `MV-${made.number}` },
  ];
  const typed = await page.request.post(`/api/sheets/${sheet.id}/edits`, {
    data: edits,
    headers: { ...origin, 'if-match': `"${sheet.version}"` },
  });
  expect(typed.ok()).toBe(true);
  await page.goto(`/orders/${made.number}`);
  const tracks = page.getByLabel('three tracks');

  // One key, and one more on the page that says what will happen.
  await expect(page.getByRole('button', { name: /^Confirm it/ })).toBeEnabled();
  await page.keyboard.press('c');
  await expect(page.getByRole('dialog', { name: 'Confirm it?' })).toContainText('1 line is taken from the stock of Skerrow quay');
  await page.keyboard.press('Enter');
  await expect(tracks).toContainText('confirmed');
  await expect(page.getByText(/can be sold alone|no PO number/)).toHaveCount(0);
  await accessible(page);

  await page.getByRole('button', { name: 'Change it' }).click();
  await expect(page.getByText('what was confirmed stands until then')).toBeVisible();
  await accessible(page);
  const row = page.getByRole('row').filter({ hasText: 'SHK-BOW-10' });
  await row.locator('td').nth(3).click();
  await page.keyboard.type('6');
  await page.keyboard.press('Enter');
  await expect(row).toContainText('24.90');
  await page.getByRole('button', { name: /^Confirm the change/ }).click();
  const says = page.getByRole('dialog', { name: 'Confirm the change?' });
  await expect(says).toContainText('6, confirmed were 4');
  await accessible(page);
  await says.getByRole('button', { name: /^Confirm the change/ }).click();
  await expect(tracks).toContainText('confirmed');
  await page.getByRole('button', { name: /version 1, as it was confirmed beside it/ }).click();
  await expect(page.getByRole('dialog')).toContainText('SHK-BOW-10');
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Hold it…' }).click();
  await page
    .getByRole('dialog')
    .getByLabel(/^why\?/)
    .fill('They think again');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Hold it/ })
    .click();
  await expect(page.getByText('held: They think again')).toBeVisible();
  await accessible(page);
  await page.keyboard.press('c');
  await expect(tracks).toContainText('confirmed');

  await page.getByRole('button', { name: 'Cancel it…' }).click();
  await expect(page.getByRole('dialog')).toContainText('the buyer is told by mail');
  await page
    .getByRole('dialog')
    .getByLabel(/^why\?/)
    .fill('They closed the yard');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Cancel it/ })
    .click();
  await expect(tracks).toContainText('cancelled');
  await accessible(page);
  await page.getByRole('button', { name: 'Open it again' }).click();
  await expect(page.getByRole('button', { name: /^Confirm it/ })).toBeEnabled();
  await page.getByRole('button', { name: 'Copy it' }).click();
  await expect(page).not.toHaveURL(new RegExp(made.number));
  await expect(page.getByRole('row').filter({ hasText: 'SHK-BOW-10' })).toBeVisible();
});
