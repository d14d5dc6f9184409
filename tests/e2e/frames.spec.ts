import { expect, test, type Page } from '@playwright/test';
import { accessible, stepIn } from './house.js';

// Orders that are more than goods now: frames that are called off, lines closed short, prospects, piles and rounds.

/** An order of buyer 5 with such lines and terms, made by the doors that the screen uses. */
async function order(page: Page, buyer: number, lines: readonly string[], terms: Readonly<Record<string, string>>): Promise<string> {
  const origin = { origin: new URL(page.url()).origin };
  const made = await (await page.request.post(`/api/buyers/${buyer}/orders`, { headers: origin })).json();
  const sheet = (await (await page.request.get(`/api/orders/${made.number}`)).json()).sheet;
  const data = [...lines.map((value) => ({ kind: 'add', value })), ...Object.entries(terms).map(([field, value]) => ({ kind: 'set', field, value }))];
  const edited = await page.request.post(`/api/sheets/${sheet.id}/edits`, { headers: { ...origin, 'if-match': `"${sheet.version}"` }, data });
  expect(edited.ok(), await edited.text()).toBeTruthy();
  return made.number;
}

test('a call-off order is confirmed, and a part of it called off under the buyer’s release number', async ({ page }) => {
  await stepIn(page, 'Nell Havergal');
  const number = await order(page, 5, ['BB2-10-NV x 400 m', 'SHK-BOW-10 x 60'], { poNumber: 'FR-1' });
  await page.goto(`/orders/${number}`);
  // The kind is one of the terms, and folds away until somebody says it.
  await page.getByRole('button', { name: /^more/ }).click();
  await page
    .locator('dt', { hasText: /^kind$/ })
    .locator('..')
    .getByRole('button')
    .click();
  await page.getByLabel('kind', { exact: true }).fill('call-off');
  await page.keyboard.press('Enter');
  const frame = page.getByRole('region', { name: 'call-off' });
  await expect(page.getByRole('button', { name: /^Confirm it/ })).toBeEnabled();
  await page.keyboard.press('c');
  await expect(page.getByRole('dialog', { name: /Confirm it/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(frame.getByText('call off…')).toBeVisible();
  await accessible(page);
  await page.keyboard.press('k');
  const dialog = page.getByRole('dialog', { name: 'Call off' });
  await dialog.getByLabel('their release number').fill('R-001');
  await dialog.getByLabel('how much of line 1').fill('500');
  await page.keyboard.press('Control+Enter');
  await expect(dialog.getByRole('alert')).toContainText('400 are left');
  await dialog.getByLabel('how much of line 1').fill('150');
  await accessible(page);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/^called off of/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Confirm it/ })).toBeEnabled();
  await page.goto(`/orders/${number}`);
  await expect(frame.getByRole('row', { name: /marineblå/ })).toContainText('250');
  await expect(frame).toContainText('R-001');
});

test('a line of a confirmed order is closed short and opened again', async ({ page }) => {
  await stepIn(page, 'Nell Havergal');
  const number = await order(page, 5, ['BB2-10-NV x 20 m', 'THM-SS-12 x 4'], { poNumber: 'CS-1' });
  await page.goto(`/orders/${number}`);
  await expect(page.getByRole('button', { name: /^Confirm it/ })).toBeEnabled();
  await page.keyboard.press('c');
  await expect(page.getByRole('dialog', { name: /Confirm it/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'close lines short…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Close lines short' });
  await expect(dialog).toBeVisible();
  await accessible(page);
  for (const box of await dialog.getByRole('checkbox').all()) await box.uncheck();
  await dialog.getByRole('checkbox').nth(1).check();
  await dialog.getByLabel(/^why/).fill('they found some');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('closed short: they found some')).toBeVisible();
  await page.getByRole('button', { name: 'open closed lines again' }).click();
  await expect(page.getByText('closed short: they found some')).toBeHidden();
  await expect(page.getByRole('button', { name: /^Confirm the change/ })).toBeEnabled();
});

test('a prospect becomes a customer from the order that waits for it', async ({ page }) => {
  await stepIn(page, 'Sorcha Quill');
  const number = await order(page, 10, ['SHK-BOW-10 x 10'], { poNumber: 'FIRST-1' });
  await page.goto(`/orders/${number}`);
  await expect(page.getByText(/is still a prospect/).first()).toBeVisible();
  await page.keyboard.press('f');
  const dialog = page.getByRole('dialog', { name: 'Make them a customer' });
  await dialog.getByLabel('tax number').fill('IE12');
  await dialog.getByLabel('days to pay').fill('14');
  await dialog.getByLabel('Incoterm').fill('DAP');
  await dialog.getByLabel('named place').fill('Skerrow');
  await dialog.getByLabel(/^credit limit/).fill('2000');
  await accessible(page);
  await page.keyboard.press('Control+Enter');
  await expect(dialog.getByRole('alert')).toContainText('IE12');
  await dialog.getByLabel('tax number').fill('IE1234567FA');
  await page.keyboard.press('Control+Enter');
  await expect(dialog).toBeHidden();
  await expect(page.getByText(/is still a prospect/)).toHaveCount(0);
  // What was agreed stands on the order; the limit is credit control's.
  await expect(page.getByText('Payment terms are missing.')).toHaveCount(0);
  await expect(page.getByText(/No credit limit is kept/)).toBeVisible();
});

test('orders are put on a pile, opened together, and something is done to all of them', async ({ page }) => {
  await stepIn(page, 'Nell Havergal');
  for (const i of [1, 2, 3]) await order(page, 5, [`THM-SS-12 x ${i}`], { poNumber: `PL-${i}` });
  await page.goto('/orders?filter=po:PL-');
  await expect(page.getByRole('row')).toHaveCount(4);
  for (const i of [1, 2, 3])
    await page
      .getByRole('row')
      .nth(i)
      .click({ modifiers: ['Control'] });
  await page.getByRole('button', { name: 'put on a pile…' }).click();
  await page.getByLabel('called').fill('month end');
  await page.getByRole('button', { name: 'Put them there' }).click();
  await expect(page.getByText('They lie on “month end”.')).toBeVisible();
  await page.getByRole('link', { name: 'piles' }).click();
  await accessible(page);
  await page.getByRole('region', { name: 'month end' }).getByRole('link', { name: '3 orders' }).click();
  await expect(page.getByRole('row')).toHaveCount(4);
  for (const i of [1, 2, 3])
    await page
      .getByRole('row')
      .nth(i)
      .click({ modifiers: ['Control'] });
  await page.getByLabel('what to do').selectOption('hold');
  await page.getByLabel('because').fill('stock-taking');
  await page.getByRole('button', { name: 'Hold them' }).click();
  await expect(page.getByText('3 done.')).toBeVisible();
  await expect(page.getByText('held', { exact: true })).toHaveCount(3);
});
