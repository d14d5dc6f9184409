import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** Steps in as one of the demo's people. */
export async function stepIn(page: Page, name: string) {
  await page.goto('/step-in');
  await page.getByRole('button', { name }).click();
  await expect(page.getByRole('heading', { name: /need|Nothing/ })).toBeVisible();
}

const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

// Headings in their order, from a first one on.
const beside = { 'heading-order': { enabled: true }, 'page-has-heading-one': { enabled: true }, 'empty-heading': { enabled: true } };

/** No fault that axe finds by the rules of WCAG 2.2 A and AA; in both themes, since contrast differs. */
export async function accessible(page: Page) {
  // A page that is still empty has no faults, and no heading.
  await expect(page.locator('h1').first()).toBeAttached();
  for (const theme of ['paper', 'night']) {
    await page.evaluate(async (t) => {
      document.documentElement.dataset.theme = t;
      await new Promise((done) => requestAnimationFrame(done));
      // Colours that are on their way from one theme to the other are neither.
      const ending = document.getAnimations().filter((a) => a.effect?.getTiming().iterations !== Infinity);
      await Promise.allSettled(ending.map((a) => a.finished));
    }, theme);
    const { violations } = await new AxeBuilder({ page })
      .options({ runOnly: { type: 'tag', values: tags }, rules: beside })
      .exclude('iframe')
      .analyze();
    expect(
      violations.map(
        (v) =>
          `${theme}: ${v.id} ${v.nodes
            .map((n) => n.target.join(' '))
            .slice(0, 3)
            .join(' | ')}`,
      ),
    ).toEqual([]);
  }
  await page.evaluate(() => (document.documentElement.dataset.theme = 'paper'));
}

/** The row of a sheet that holds an item. */
export const line = (page: Page, code: string) => page.locator('tr[data-line]').filter({ hasText: code });

/** Types into a cell of a line: 2 item, 3 quantity, 4 price, 5 less. */
export async function type(page: Page, code: string, cell: number, text: string) {
  const before = await page.getByLabel('tally').innerText();
  await line(page, code).locator('td').nth(cell).click();
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('tally')).not.toHaveText(before);
}

/** Does what decides an ask, and waits until the house has it: the page moves on to the next ask, which has an address of the same form. */
export async function decided(page: Page, act: () => Promise<void>) {
  const answer = page.waitForResponse((r) => /\/api\/asks\/\d+\/(grant|send-back)$/.test(r.url()));
  await act();
  expect((await answer).status()).toBe(200);
}
