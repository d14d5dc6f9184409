// Lists, the finder and a buyer's page over 200,000 orders and 1,000,000 lines, beside the bare SQL of the same questions.
// Run by `./solvenda bench large`; takes the address of a server over that database, its folder, and its process. Writes bench/RESULTS.md's table.
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';

const [base, folder, pid, bench] = process.argv.slice(2);
let cookie = '';
const get = async (path) => (await fetch(base + path, { headers: { cookie } })).text();
const stepped = await fetch(`${base}/api/demo/step-in`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ id: 1 }) });
cookie = stepped.headers.get('set-cookie').split(';')[0];

const questions = {
  orders: ['the list of orders that are not done', () => '/api/lists/orders'],
  items: ['50,000 items, one family, by words', () => '/api/lists/items?filter=family:rope&sort=words'],
  prices: ['50,000 prices above 5, by price', () => '/api/lists/prices?filter=price>5&sort=price'],
  find: ['find, two words', (i) => `/api/find?q=${['lomond ferries', 'skerrow marina', 'heavy anchor', 'PO-4711', 'IT-004711'][i % 5]}`],
  buyer: ["a buyer's page", (i) => `/api/buyers/${4711 + i}/answers`],
};
const at95 = (times) => [...times].sort((a, b) => a - b)[Math.floor(times.length * 0.95)];
const ours = {};
for (const [name, [, path]] of Object.entries(questions)) {
  const times = [];
  for (let i = 0; i < 90; i++) {
    const began = performance.now();
    await get(path(i));
    if (i >= 30) times.push(performance.now() - began);
  }
  ours[name] = at95(times);
}
const rss = Number(/VmRSS:\s+(\d+)/.exec(fs.readFileSync(`/proc/${pid}/status`, 'utf8'))[1]) / 1024;
const bare = Object.fromEntries(execFileSync('dotnet', [bench, 'sql', folder], { encoding: 'utf8' }).trim().split('\n').map((l) => l.split(' ')));

const lines = [
  `Measured ${new Date().toISOString().slice(0, 10)} on ${execFileSync('nproc', { encoding: 'utf8' }).trim()} cores. Memory of the server after it: ${rss.toFixed(0)} MB.`,
  '',
  '| 200,000 orders, 1,000,000 lines, 50,000 items, 20,000 buyers | p95, HTTP | bare SQL, p95 | ratio |',
  '|---|---|---|---|',
  ...Object.entries(questions).map(([name, [words]]) => `| ${words} | ${ours[name].toFixed(1)} ms | ${Number(bare[name]).toFixed(1)} ms | ${(ours[name] / Number(bare[name])).toFixed(1)} |`),
];
console.log(lines.join('\n'));
const file = new URL('RESULTS.md', import.meta.url).pathname;
const mark = '<!-- large -->';
const [head, , tail = ''] = fs.readFileSync(file, 'utf8').split(mark);
fs.writeFileSync(file, `${head}${mark}\n${lines.join('\n')}\n${mark}${tail}`);
