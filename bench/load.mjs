// Fifty people at once, each with a second to think between desk, opening a quote and an edit of it, beside one person alone before them in
// the same run. Run by `./solvenda bench load`; takes the address of a running demo, and how many seconds the fifty work.
import fs from 'node:fs';

const [base, seconds = '60', crowd = '50', prices = '200000'] = process.argv.slice(2);
const people = [1, 2, 3, 4, 5];
const lines = 20;

// One keep-alive connection each is what a browser holds; fetch keeps them for us.
async function person(i) {
  const stepped = await fetch(`${base}/api/demo/step-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ id: people[i % people.length] }),
  });
  const cookie = stepped.headers.get('set-cookie').split(';')[0];
  const call = async (method, path, data, headers = {}) => {
    const answer = await fetch(base + path, {
      method,
      headers: { cookie, ...(data ? { 'content-type': 'application/json' } : {}), ...headers },
      body: data && JSON.stringify(data),
    });
    const body = await answer.json();
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${JSON.stringify(body).slice(0, 300)}`);
    return body;
  };
  call.bytes = async (path, body) => (await fetch(base + path, { method: 'POST', headers: { cookie, 'content-type': 'text/csv' }, body })).json();
  return call;
}

async function quote(call, i, codes) {
  const { number } = await call('POST', '/api/quotes', { buyerId: 1 + (i % 12), matter: `under load ${i}` });
  const { sheet } = await call('GET', `/api/quotes/${number}`);
  const edits = Array.from({ length: lines }, (_, n) => ({ kind: 'add', value: `x x ${n + 1}`, field: codes[(n + i) % codes.length] }));
  await call('POST', `/api/sheets/${sheet.id}/edits`, edits, { 'if-match': `"${sheet.version}"` });
  return number;
}

const think = () => new Promise((done) => setTimeout(done, 500 + Math.random() * 1000));

async function work(call, number, until, times) {
  const timed = async (name, run) => {
    const began = performance.now();
    const answer = await run();
    times[name].push(performance.now() - began);
    return answer;
  };
  for (let n = 1; performance.now() < until(); n++) {
    await think();
    await timed('desk', () => call('GET', '/api/desk'));
    await think();
    const { sheet } = await timed('open', () => call('GET', `/api/quotes/${number}`));
    await think();
    const edit = [{ kind: 'set', line: sheet.lines[n % lines].key, field: 'quantity', value: String((n % 90) + 5) }];
    await timed('edit', () => call('POST', `/api/sheets/${sheet.id}/edits`, edit, { 'if-match': `"${sheet.version}"` }));
  }
}

/** A moment that many seconds from now. */
const after = (seconds) => {
  const end = performance.now() + seconds * 1000;
  return () => end;
};
const made = () => ({ desk: [], open: [], edit: [] });
const at = (times, share) => [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))];

const calls = await Promise.all(Array.from({ length: Number(crowd) }, (_, i) => person(i)));
const codes = [];
for (const q of ['rope', 'chain', 'shackle', 'fender', 'cleat', 'buoy'])
  for (const item of (await calls[0]('GET', `/api/items?q=${q}`)).items) codes.push(item.code);
const numbers = [];
for (let i = 0; i < calls.length; i++) numbers.push(await quote(calls[i], i, codes));

// Warm first: what a start costs is another figure.
await Promise.all(calls.map((call, i) => work(call, numbers[i], after(8), made())));
const alone = made();
await work(calls[0], numbers[0], after(seconds / 2), alone);
const many = made();
await Promise.all(calls.map((call, i) => work(call, numbers[i], after(seconds), many)));


// And while a file of 200,000 prices is taken: ten of them work on until the last row is in.
const dates = (n) => new Date(Date.UTC(2031, 0, 1 + n)).toISOString().slice(0, 10);
const { rows } = await calls[1]('GET', '/api/lists/items?take=500&columns=code,stockUnit');
const text = ['list,item,unit,price,currency,per,from,to'];
for (let n = 0; text.length <= Number(prices); n++)
  for (const { cells } of rows) if (text.length <= Number(prices)) text.push(`house,${cells[0]},${cells[1]},${(n % 90) + 1}.5,EUR,1,${dates(n)},${dates(n)}`);
const import_ = async (until) => {
  for (;;) {
    const seen = await calls[1]('GET', `/api/imports/${import_.id}`);
    if (seen.state === until) return seen;
    if (seen.problem) throw new Error(seen.problem);
    await new Promise((done) => setTimeout(done, 300));
  }
};
import_.id = (await calls[1].bytes('/api/records/prices/imports?filename=prices.csv', text.join('\n'))).id;
await import_('looked');
const during = made();
const taken = { at: Infinity };
const began = performance.now();
await calls[1]('POST', `/api/imports/${import_.id}/take`);
await Promise.all([
  import_('taken').then(() => (taken.at = performance.now())),
  ...calls.slice(0, 10).map((call, i) => work(call, numbers[i], () => taken.at, during)),
]);
const importing = ((taken.at - began) / 1000).toFixed(0);

const row = (words, name) => {
  const f = (times, share) => at(times, share).toFixed(0);
  const ratio = (at(many[name], 0.95) / at(alone[name], 0.95)).toFixed(1);
  return `| ${words} | ${f(alone[name], 0.5)} / ${f(alone[name], 0.95)} | ${f(many[name], 0.5)} / ${f(many[name], 0.95)} / ${f(many[name], 0.99)} | ${ratio} | ${f(during[name], 0.5)} / ${Math.max(...during[name]).toFixed(0)} |`;
};
const table = [
  `| ${crowd} people, 1 s think, sheets of ${lines} lines | one alone, ms: median / p95 | all of them: median / p95 / p99 | p95, ratio | ten of them, while ${prices} prices are taken in ${importing} s: median / longest |`,
  '|---|---|---|---|---|',
  row('the desk', 'desk'),
  row('opening a quote', 'open'),
  row('an edit', 'edit'),
];
console.log(table.join('\n'));
const file = new URL('RESULTS.md', import.meta.url).pathname;
const mark = '<!-- load -->';
const [head, , tail = ''] = fs.readFileSync(file, 'utf8').split(mark);
if (tail) fs.writeFileSync(file, `${head}${mark}\n${table.join('\n')}\n${mark}${tail}`);
