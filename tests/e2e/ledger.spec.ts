import { expect, test } from '@playwright/test';
import { readBack } from './einvoice.js';
import { accessible, stepIn } from './house.js';

// The morning of whoever invoices: what went is invoiced, the bank's statement taken in, what is in doubt is said.

test('what went is invoiced together, shown as it was issued, and credited in part', async ({ page }) => {
  test.setTimeout(240_000);
  await stepIn(page, 'Petra Vantongeren');
  await expect(page.getByText(/orders? went/).first()).toBeVisible();
  await page.goto('/ledger');
  const rows = page.getByRole('checkbox', { checked: true });
  await expect(rows.first()).toBeVisible();
  // One is looked at first: what was sold goes to another account, with a reason.
  const all = await rows.count();
  await page.keyboard.press('Enter');
  const before = page.getByRole('dialog', { name: 'before it is issued' });
  await before.getByRole('button', { name: /^move / }).click();
  await before.getByRole('combobox').selectOption({ index: 1 });
  await before.getByRole('textbox').fill('a special job');
  await before.getByRole('button', { name: 'Move it' }).click();
  await expect(before.getByRole('region', { name: 'what it posts' })).toContainText('“a special job”');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('status')).toContainText('was issued', { timeout: 30_000 });
  await expect(rows).toHaveCount(all - 1);
  const many = await rows.count();
  expect(many).toBeGreaterThan(3);
  await accessible(page);
  await page.keyboard.press('f');
  // It is said before that nothing of it can be changed.
  await expect(page.getByRole('dialog')).toContainText('never changed');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('status')).toContainText(`${many} invoiced`, {
    timeout: 120_000,
  });
  console.log(`invoiced ${many} orders with 2 keys on 1 screen`);
  await page.getByRole('link', { name: 'invoices', exact: true }).click();
  await expect(page.getByRole('heading', { name: /Invoices/ })).toBeVisible();
  await accessible(page);
  // Another program, which knows nothing of us, reads each as what it is.
  for (const number of (await page.getByRole('link', { name: /^F\d/ }).allInnerTexts()).slice(0, many)) {
    const ubl = await page.request.get(`/api/invoices/${number}/ubl`);
    const { totalWithTax } = await (await page.request.get(`/api/invoices/${number}`)).json();
    const { cii } = await readBack(await ubl.text());
    expect(cii, number).toContain(`<ram:GrandTotalAmount>${totalWithTax.toFixed(2)}</ram:GrandTotalAmount>`);
  }
  await page.getByRole('link', { name: /^F\d/ }).first().click();
  await expect(page.getByRole('region', { name: 'what is booked' })).toBeVisible();
  await accessible(page);
  const open = page.getByRole('region', { name: 'how it stands' });
  const stood = await open.innerText();
  await page
    .getByRole('checkbox', { name: /^credit / })
    .first()
    .check();
  await page.keyboard.press('c');
  await page.getByRole('dialog').getByRole('textbox').fill('came wet');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/credited by/).first()).toBeVisible();
  expect(await open.innerText()).not.toBe(stood);
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
  // A marketplace pays out what it held, less its fees.
  await page.getByRole('button', { name: /Harbourmart/ }).click();
  await expect(page.getByRole('heading', { name: /from Harbourmart/ })).toBeVisible();
  await press('p');
  await page.getByRole('textbox', { name: /fees/ }).fill('174.90');
  await press('Enter');
  await expect(page.getByRole('button', { name: /Harbourmart/ })).toHaveCount(0);
  await page.goto('/ledger/entries');
  await expect(page.getByRole('heading', { name: /Ledger/ })).toBeVisible();
  // Sellers earn on what was invoiced; each sees their own.
  await page.goto('/ledger/commissions');
  await expect(page.getByRole('region', { name: /Bastian Mohr/ }).first()).toContainText('by the margin, 70 % of it');
  await accessible(page);
  await stepIn(page, 'Sorcha Quill');
  await page.goto('/ledger/commissions');
  await expect(page.getByRole('region', { name: /Sorcha Quill/ }).first()).toBeVisible();
  await expect(page.getByText('Bastian Mohr')).toHaveCount(0);
});

test('what is late is reminded of, disputed, and paid over the counter; the accounts agree', async ({ page }) => {
  await stepIn(page, 'Petra Vantongeren');
  await page.goto('/ledger/owed');
  await expect(page.getByText(/to remind/)).toBeVisible();
  await accessible(page);
  const before = await page.getByRole('checkbox', { checked: true }).count();
  await page.keyboard.press('r');
  await expect(page.getByRole('dialog')).toContainText('letter in their language');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('status')).toContainText(`${before} reminded`, {
    timeout: 60_000,
  });
  await expect(page.getByText(/^reminded/).first()).toBeVisible();

  await page
    .getByRole('row', { name: /reminded/ })
    .first()
    .getByRole('link')
    .click();
  await expect(page.getByRole('region', { name: 'what is open' }).getByRole('row').nth(1)).toBeVisible();
  await accessible(page);
  await page.keyboard.press('d');
  await page.getByRole('dialog').getByRole('textbox').fill('two drums were short');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('disputed: two drums were short')).toBeVisible();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('d');
  await page.getByRole('dialog').getByRole('textbox').fill('the drums were found');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/disputed:/)).toHaveCount(0);
  await expect(page.getByRole('dialog')).toHaveCount(0);
  // What is noted pays what is due first, and says so before.
  await page.keyboard.press('n');
  const noting = page.getByRole('dialog', { name: 'note money' });
  await noting.getByLabel('how much').fill('50');
  await expect(noting.getByRole('listitem')).toContainText('50.00');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('status')).toContainText('noted');

  await page.goto('/ledger/balance');
  await expect(page.getByRole('cell', { name: 'till' })).toBeVisible();
  await expect(page.getByText('do not agree')).toHaveCount(0);
  await accessible(page);
});

test('goods come back: asked, allowed, here, credited', async ({ page }) => {
  await stepIn(page, 'Nell Havergal');
  // Something that went and is invoiced, of which nothing was credited.
  const get = async (path: string) => (await page.request.get(path)).json();
  let order = '';
  for (const { calls } of (await get('/api/lists/invoices?filter=kind:invoice')).rows as { calls: string }[]) {
    const { issued, notes } = await get(`/api/invoices/${calls}`);
    order = notes.length === 0 ? issued.order : '';
    if (order) break;
  }
  await page.goto(`/orders/${order}`);
  const back = page.getByRole('region', { name: 'what comes back' });
  await expect(back.getByRole('button', { name: /Goods come back/ })).toBeVisible();
  await page.keyboard.press('z');
  const asking = page.getByRole('dialog', { name: 'goods come back' });
  await asking
    .getByRole('textbox', { name: /^how much of/ })
    .last()
    .fill('1');
  await asking.getByLabel('why do they give it back?').fill('bent');
  await page.keyboard.press('Control+Enter');
  await expect(back).toContainText('they want to give back: 1');
  await accessible(page);
  await back.getByRole('button', { name: 'Allow it' }).click();
  await page.keyboard.press('Control+Enter');
  await expect(back).toContainText('may come back');
  await back.getByRole('button', { name: 'It is here, not to be sold' }).click();
  await expect(back).toContainText('is here: 1');
  await back.getByRole('button', { name: 'Credit it', exact: true }).click();
  await expect(back.getByRole('link', { name: /^F\d/ })).toBeVisible();
  await back.getByRole('link', { name: /^F\d/ }).click();
  await expect(page.getByRole('heading', { name: /Credit note/ })).toBeVisible();
});

test('a deposit is taxed when it comes, and papers say what the house says', async ({ page }) => {
  await stepIn(page, 'Petra Vantongeren');
  const origin = { origin: new URL(page.url()).origin };
  // An order at home that nothing has gone of yet.
  const orders = await (await page.request.get('/api/lists/orders?filter=terms:confirmed+goods:waiting+buyer:Gull&columns=total')).json();
  const order: string = orders.rows[0].calls;
  const today = new Date().toISOString().slice(0, 10);
  const noted = await page.request.post(`/api/orders/${order}/deposits`, {
    headers: origin,
    data: { amount: 123, receivedOn: today, reference: `SCT ${order}` },
  });
  expect(noted.status(), await noted.text()).toBe(200);
  await page.goto(`/orders/${order}`);
  const money = page.getByRole('region', { name: 'its money' });
  await expect(money).toContainText('for a deposit');
  await money.getByRole('link', { name: /^F\d/ }).first().click();
  await expect(page.getByRole('heading', { name: /Deposit invoice/ })).toBeVisible();
  await expect(page.getByRole('region', { name: 'as it was issued' })).toContainText(`Deposit for order ${order}`);
  await accessible(page);

  await stepIn(page, 'Cass Whitlock');
  await page.goto('/records/paper-texts');
  await page.getByRole('link', { name: 'delivery notes' }).click();
  const paper = page.getByRole('img', { name: 'a paper with this text on it' });
  await expect(paper).toBeVisible();
  const before = await paper.getAttribute('src');
  await page.getByLabel('over the lines').fill('Handle with dry hands.');
  await page.getByLabel('language').focus();
  await expect(paper).not.toHaveAttribute('src', before!);
  await accessible(page);
});
