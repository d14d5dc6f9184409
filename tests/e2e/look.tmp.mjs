import { chromium } from 'playwright-core';
const [person, width, height, ...rest] = process.argv.slice(2);
const base = 'http://127.0.0.1:5301';
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const page = await (await browser.newContext({ viewport: { width: +width, height: +height } })).newPage();
page.on('pageerror', (e) => console.log('PAGEERROR', e.message));
page.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text()));
await page.goto(`${base}/step-in`);
await page.getByRole('button', { name: person }).click();
await page.waitForURL((u) => !u.pathname.includes('step-in')); await page.waitForTimeout(500);
for (const spec of rest) {
  const [path, name, ...keys] = spec.split('|');
  await page.goto(base + path);
  await page.waitForTimeout(900);
  for (const k of keys) { if (k.startsWith('"')) await page.keyboard.type(k.slice(1)); else await page.keyboard.press(k); await page.waitForTimeout(350); }
  await page.screenshot({ path: `/tmp/shots/${name}.png` });
}
await browser.close();
