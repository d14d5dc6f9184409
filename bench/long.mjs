// A sheet of 500 lines on the screen: rows in the page and long tasks while it is scrolled, and what the heap holds after many edits.
// Run by `./solvenda bench long`; takes the address of a running demo.
import { open } from './page.mjs';

const [base, lines = '500', edits = '1000'] = process.argv.slice(2);
const { browser, page, call } = await open(base);
const { number } = await call('POST', '/api/quotes', { buyerId: 2, matter: 'a long one' });
const list = (await call('GET', '/api/items?q=shackle')).items.map((i) => i.code);
const { sheet } = await call('GET', `/api/quotes/${number}`);
const add = Array.from({ length: Number(lines) }, (_, i) => ({ kind: 'add', value: `x x ${i + 1}`, field: list[i % list.length] }));
await call('POST', `/api/sheets/${sheet.id}/edits`, add, { 'if-match': `"${sheet.version}"` });

await page.goto(`${base}/quotes/${number}`);
await page.locator('tr[data-line]').nth(3).waitFor();
// What the page does to begin with is not scrolling.
await page.waitForTimeout(3000);
const scrolled = await page.evaluate(async () => {
  const box = document.querySelector('[data-sheet] > div');
  const long = [];
  new PerformanceObserver((seen) => seen.getEntries().forEach((e) => long.push(e.duration))).observe({ entryTypes: ['longtask'] });
  let most = 0;
  for (let top = 0; top < box.scrollHeight; top += 120) {
    box.scrollTop = top;
    await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
    most = Math.max(most, document.querySelectorAll('tr[data-line]').length);
  }
  return { most, long: long.length, longest: Math.max(0, ...long) };
});

const cdp = await page.context().newCDPSession(page);
const heap = async () => {
  await cdp.send('HeapProfiler.collectGarbage');
  return (await cdp.send('Runtime.getHeapUsage')).usedSize / 1024 / 1024;
};
await page.evaluate(() => (document.querySelector('[data-sheet] > div').scrollTop = 0));
await page.locator('tr[data-line]').nth(1).locator('td').nth(3).click();
const held = {};
for (let i = 1; i <= Number(edits); i++) {
  const taken = page.waitForResponse((r) => r.url().endsWith('/edits'));
  await page.keyboard.type(String((i % 90) + 5));
  await page.keyboard.press('Enter');
  await taken;
  await page.keyboard.press('ArrowUp');
  if (i === 200 || i === Number(edits)) held[i] = await heap();
}
await browser.close();

console.log(`a sheet of ${lines} lines at 1280x800`);
console.log(`rows in the page while it is scrolled, at most: ${scrolled.most}`);
console.log(`tasks over 50 ms while it is scrolled:          ${scrolled.long}, the longest ${scrolled.longest.toFixed(0)} ms`);
console.log(`the heap after collection: ${Object.entries(held).map(([i, mb]) => `${mb.toFixed(1)} MB at edit ${i}`).join(', ')}`);
