// How long from a key to the repriced tally, on a sheet of 100 lines: the server's answer alone, and in the browser.
// Run by `./solvenda bench typing`; takes the address of a running demo.
import { open } from './page.mjs';

const [base, lines = '100'] = process.argv.slice(2);
const { browser, page, call } = await open(base);
const { number } = await call('POST', '/api/quotes', { buyerId: 2, matter: 'a long one' });
const codes = new Set();
for (const q of ['rope', 'chain', 'shackle', 'thimble', 'fender', 'block', 'cleat', 'buoy', 'netting', 'swivel', 'line', 'paint'])
  for (const item of (await call('GET', `/api/items?q=${q}`)).items) codes.add(item.code);
const list = [...codes];
let { sheet } = await call('GET', `/api/quotes/${number}`);
const edits = Array.from({ length: Number(lines) }, (_, i) => ({ kind: 'add', value: `x x ${i + 1}`, field: list[i % list.length] }));
({ sheet } = await call('POST', `/api/sheets/${sheet.id}/edits`, edits, { 'if-match': `"${sheet.version}"` }));

// The server alone is asked from here, as the page asks it: one connection that stays open, saying what was shown last.
const cookie = (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join('; ');
const keys = sheet.lines.map((l) => l.key);
const server = [];
let shown = '';
for (let i = 0; i < 400; i++) {
  const began = performance.now();
  const answer = await fetch(`${base}/api/sheets/${sheet.id}/edits`, {
    method: 'POST',
    headers: { cookie, origin: base, 'content-type': 'application/json', 'if-match': `"${sheet.version}"`, 'solvenda-shown': shown },
    body: JSON.stringify([{ kind: 'set', line: keys[i % 50], field: 'quantity', value: String(i + 5) }]),
  });
  ({ sheet, shown } = await answer.json());
  server.push(performance.now() - began);
}

await page.goto(`${base}/quotes/${number}`);
await page.locator('tr[data-line]').nth(1).locator('td').nth(3).click();
const screen = [];
for (let i = 0; i < 60; i++) {
  await page.keyboard.type(String(700 + i));
  screen.push(
    await page.evaluate(
      () =>
        new Promise((done) => {
          const tally = document.querySelector('[aria-label="tally"]');
          let began = 0;
          const seen = new MutationObserver(() => {
            seen.disconnect();
            requestAnimationFrame(() => done(performance.now() - began));
          });
          seen.observe(tally.querySelector('dl'), { subtree: true, childList: true, characterData: true });
          began = performance.now();
          document.activeElement.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
        }),
    ),
  );
}
await browser.close();

const at = (times, share) => [...times].sort((a, b) => a - b)[Math.floor(times.length * share)].toFixed(0);
console.log(`an edit of a sheet of ${lines} lines, ms: median / p95`);
console.log(`the server's answer, first 100 after a start: ${at(server.slice(0, 100), 0.5)} / ${at(server.slice(0, 100), 0.95)}`);
console.log(`the server's answer, warm:                    ${at(server.slice(-200), 0.5)} / ${at(server.slice(-200), 0.95)}`);
console.log(`key to repriced tally in the browser:         ${at(screen, 0.5)} / ${at(screen, 0.95)}`);
