import { expect, test } from '@playwright/test';
import { accessible, stepIn } from './house.js';

// What came in: the rules of a way are said and tried, what is ready is taken together, a question is answered where it is read.

test('the administrator says what goes through by itself, and sees it tried on the past', async ({ page }) => {
  await stepIn(page, 'Cass Whitlock');
  await page.goto('/setup/ways');
  await page.getByRole('button', { name: /^edi/ }).click();
  await expect(page.getByRole('heading', { name: 'edi is open' })).toBeVisible();
  await page.getByLabel('what goes through').selectOption({ label: 'those go through by themselves' });
  await page.getByRole('button', { name: 'From now on so' }).click();
  // Nobody answers for it yet.
  await expect(page.getByRole('alert')).toContainText('who answers');
  await page.getByLabel('who answers for it').selectOption({ label: 'Nell Havergal' });
  await page.getByLabel('how sure, in percent').fill('95');
  await page.getByLabel('how sure, in percent').blur();
  await expect(page.getByRole('region', { name: 'tried on the past' })).toContainText('of the last thirty days');
  await page.getByRole('button', { name: 'From now on so' }).click();
  await expect(page.getByRole('region', { name: 'changed lately' })).toContainText('orders go through from 95 % sure');
  await page.getByRole('region', { name: 'what it brought' }).getByRole('button').first().click();
  await expect(page.getByRole('region', { name: 'what it brought' })).toContainText(/taken .*: R\d\d-/);
  await accessible(page);
  await page.getByLabel('what goes through').selectOption({ label: 'none goes through by itself' });
  await page.getByRole('button', { name: 'From now on so' }).click();
  await expect(page.getByRole('region', { name: 'changed lately' })).toContainText('no orders go through');
});

test('what is ready is dropped, weighed, and taken with one key', async ({ page }) => {
  await stepIn(page, 'Nell Havergal');
  const order = [
    'ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*000000988*0*P*>',
    'GS*PO*NORTHGANNET*BRINEMOOR*20260305*0914*988*X*004010',
    'ST*850*0001',
    'BEG*00*SA*QUEUE-1**20260305',
    'CUR*BY*USD',
    'FOB*CC**CIF Port of Gannet',
    'ITD*01*3*****60',
    'DTM*002*20270420',
    'N1*ST*Northgannet Depot 7*92*NG-07',
    'N3*77 Pier Road',
    'N4*Gannet*ME*04002*US',
    'PO1*1*44*EA***VP*SHK-BOW-10',
    'PO1*2*24*EA***VP*THM-SS-12',
    'CTT*2',
    'SE*13*0001',
    'GE*1*988',
    'IEA*1*000000988',
  ].join('~\n');
  await page.goto('/requests');
  await page
    .getByRole('group', { name: 'take in files' })
    .locator('input')
    .setInputFiles({ name: 'queue.x12', mimeType: 'application/edi-x12', buffer: Buffer.from(`${order}~\n`) });
  await page.waitForURL(/\/requests\/R/);
  const number = page.url().split('/').at(-1)!;
  await expect.poll(async () => (await (await page.request.get(`/api/requests/${number}`)).json()).worth, { message: 'it is weighed' }).not.toBeNull();
  await page.goto('/');
  const ready = page.getByRole('region', { name: 'ready' });
  await expect(ready).toBeVisible();
  await accessible(page);
  await expect(ready).toContainText(number);
  const many = await ready.getByRole('listitem').count();
  await page.keyboard.press('t');
  await expect(page.getByRole('status').filter({ hasText: 'taken' })).toContainText(`${many} taken.`);
  await expect(ready).toBeHidden();
});

test('a question is answered from where it is read, beginning with words that are often written', async ({ page }) => {
  await stepIn(page, 'Nell Havergal');
  const list = await (await page.request.get('/api/lists/requests?filter=kind:Question&columns=number&take=20')).json();
  const numbers: string[] = list.rows.map((r: { calls: string }) => r.calls);
  for (const number of numbers) {
    const view = await (await page.request.get(`/api/requests/${number}`)).json();
    if (view.channel !== 'mail' || view.state !== 'needsYou') continue;
    await page.goto(`/requests/${number}`);
    await expect(page.getByRole('button', { name: /Answer/ })).toBeVisible();
    await page.keyboard.press('a');
    const dialog = page.getByRole('dialog');
    await dialog.getByRole('button', { name: 'hours' }).click();
    await expect(dialog.getByLabel('what you write')).toHaveValue(/8 to 17/);
    await dialog.getByLabel('what you write').press('Control+Enter');
    await expect(dialog).toBeHidden();
    await expect(page.getByText('This request was dealt with.')).toBeVisible();
    await expect(page.getByText(/written to .* by Nell Havergal/)).toBeVisible();
    return;
  }
  throw new Error('the demo has no question by mail');
});
