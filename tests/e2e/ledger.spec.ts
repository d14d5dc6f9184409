import { expect, test } from '@playwright/test';
import { accessible, stepIn } from './house.js';

// The morning of whoever invoices: what went is invoiced, the bank's statement taken in, what is in doubt is said.

test('what went is invoiced together, shown as it was issued, and credited in part', async ({ page }) => {
  test.setTimeout(240_000);
  await stepIn(page, 'Petra Vantongeren');
  await expect(page.getByText(/orders? went/).first()).toBeVisible();
  await page.goto('/ledger');
  const rows = page.getByRole('checkbox', { checked: true });
  await expect(rows.first()).toBeVisible();
  const many = await rows.count();
  expect(many).toBeGreaterThan(3);
  await accessible(page);
  await page.keyboard.press('f');
  // It is said before that nothing of it can be changed.
  await expect(page.getByRole('dialog')).toContainText('never changed');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('status')).toContainText(`${many} invoiced`, { timeout: 120_000 });
  console.log(`invoiced ${many} orders with 2 keys on 1 screen`);
  await page.getByRole('link', { name: 'invoices', exact: true }).click();
  await expect(page.getByRole('heading', { name: /Invoices/ })).toBeVisible();
  await accessible(page);
  await page.getByRole('link', { name: /^F\d/ }).first().click();
  await expect(page.getByRole('region', { name: 'what is booked' })).toBeVisible();
  await accessible(page);
  const open = page.getByRole('region', { name: 'how it stands' });
  const before = await open.innerText();
  await page.getByRole('checkbox', { name: /^credit / }).first().check();
  await page.keyboard.press('c');
  await page.getByRole('dialog').getByRole('textbox').fill('came wet');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/credited by/).first()).toBeVisible();
  expect(await open.innerText()).not.toBe(before);
});

test('a morning’s statement is taken in, and what needs somebody takes a few keys each', async ({ page }) => {
  test.setTimeout(240_000);
  await stepIn(page, 'Petra Vantongeren');
  await page.goto('/ledger/bank');
  await expect(page.getByRole('button', { name: /Take statement/ })).toBeVisible();
  await page.keyboard.press('t');
  await expect(page.getByRole('status')).toContainText('33 went by themselves, 5 need you', { timeout: 60_000 });
  await accessible(page);
  let keys = 0;
  const press = async (key: string) => {
    keys++;
    await page.keyboard.press(key);
  };
  // A round sum: the oldest first, as proposed.
  await expect(page.getByRole('button', { name: /Take it so/ })).toBeVisible();
  await press('Enter');
  await expect(page.getByRole('status')).toContainText('booked for F');
  // Nobody knows whose it is: somebody says so, and it stays on account.
  await page.getByRole('button', { name: /T AND V RIGGING/ }).click();
  await press('w');
  await page.getByRole('combobox', { name: /whose money/ }).fill('Tressel');
  await page.getByRole('option').first().click();
  await expect(page.getByRole('heading', { name: /from Tressel/ })).toBeVisible();
  await press('2');
  await press('Enter');
  await expect(page.getByRole('status')).toContainText('stays on account');
  expect(keys / 2).toBeLessThan(4);
  console.log(`two movements that needed somebody took ${keys} keys`);
  await page.goto('/ledger/entries');
  await expect(page.getByRole('heading', { name: /Ledger/ })).toBeVisible();
});
