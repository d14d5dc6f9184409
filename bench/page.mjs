// How the benches of the sheet begin: a page of somebody who writes quotes, and a call as that somebody.
import { chromium } from 'playwright-core';

export async function open(base) {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run'],
  });
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(`${base}/step-in`);
  await page.getByRole('button', { name: 'Sorcha Quill' }).click();
  await page.getByRole('heading', { name: /need|Nothing/ }).waitFor();
  const call = async (method, path, data, headers = {}) => (await page.request.fetch(base + path, { method, data, headers })).json();
  return { browser, page, call };
}
