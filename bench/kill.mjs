// Kills the server with -9 at random moments under load (messages, edits, confirmations), starts it again each time, and looks whether
// anything that it had confirmed is lost; now and then, and at the end, whether `check` is clean.
// Run by `./solvenda bench kill [times]`; takes the server's library, its content root, a folder for the data, and how many times.
import { spawnSync } from 'node:child_process';
import { setTimeout as pause } from 'node:timers/promises';
import { gone, houseOf, machine } from './house.mjs';

const [server, content, data, times = '200', port = '5397'] = process.argv.slice(2);
const { base, start, person } = houseOf(server, content, data, port);
let seed = Number(process.env.SEED ?? 20261126);
// From a seed, so that what happened can be tried again (the moments are the machine's all the same).
const random = () => ((seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648);
const some = (list) => list[Math.floor(random() * list.length)];

const lost = [];
const confirmed = { messages: 0, edits: 0, orders: 0 };

// Each does one thing over and over until the server is gone, and writes down what was answered to it.
async function messages(kept, running) {
  for (let n = 0; running.on; n++) {
    const text = `From: buyer${n}@kill.example\nSubject: order ${Math.floor(random() * 1e9)}\n\n${1 + (n % 40)} pcs SHK-BOW-10\n`;
    const answer = await fetch(`${base}/api/v1/inbound?filename=k.eml`, { method: 'POST', headers: machine, body: text });
    if (answer.ok) kept.messages.push((await answer.json()).number);
  }
}

async function edits(kept, running, call) {
  const { body } = await call('POST', '/api/quotes', { buyerId: 1 + Math.floor(random() * 12), matter: 'kill' });
  let { sheet } = (await call('GET', `/api/quotes/${body.number}`)).body;
  ({ sheet } = (await call('POST', `/api/sheets/${sheet.id}/edits`, [{ kind: 'add', value: 'SHK-BOW-10 x 1' }], sheet.version)).body);
  for (let n = 0; running.on; n++) {
    const quantity = 1 + (n % 500);
    const edit = [{ kind: 'set', line: sheet.lines[0].key, field: 'quantity', value: String(quantity) }];
    const answer = await call('POST', `/api/sheets/${sheet.id}/edits`, edit, sheet.version);
    if (!answer.ok) return;
    ({ sheet } = answer.body);
    kept.sheets.set(body.number, { version: sheet.version, quantity });
    kept.edits++;
  }
}

async function orders(kept, running, call) {
  for (let n = 0; running.on; n++) {
    const begun = await call('POST', `/api/buyers/${1 + Math.floor(random() * 20)}/orders`);
    if (!begun.ok) continue;
    const { number } = begun.body;
    let { sheet } = (await call('GET', `/api/orders/${number}`)).body;
    const lines = [
      { kind: 'add', value: `${some(kept.codes)} x 1` },
      { kind: 'set', line: null, field: 'poNumber', value: `KILL-${number}` },
    ];
    const typed = await call('POST', `/api/sheets/${sheet.id}/edits`, lines, sheet.version);
    if (!typed.ok) continue;
    const answer = await call('POST', `/api/orders/${number}/confirm`, undefined, typed.body.sheet.version);
    if (answer.ok) kept.orders.push(number);
  }
}

async function look(kept, call) {
  const say = (words) => (lost.push(words), console.log(`LOST: ${words}`));
  for (const number of kept.messages) if (!(await call('GET', `/api/requests/${number}`)).ok) say(`request ${number}`);
  for (const [number, { version, quantity }] of kept.sheets) {
    const { ok, body } = await call('GET', `/api/quotes/${number}`);
    if (!ok) say(`quote ${number}`);
    else if (body.sheet.version < version) say(`edit ${version} of quote ${number}: it stands at ${body.sheet.version}`);
    else if (body.sheet.version === version && body.sheet.lines[0].quantity !== quantity) say(`the quantity of quote ${number}`);
  }
  for (const number of kept.orders) {
    const { ok, body } = await call('GET', `/api/orders/${number}`);
    if (!ok || body.tracks.terms !== 'confirmed') say(`the confirmation of order ${number}`);
  }
}

function check() {
  const answer = spawnSync('dotnet', [server, 'check', '--data', data], { encoding: 'utf8' });
  if (answer.status !== 0) lost.push('check'), console.log(`CHECK: ${answer.stdout}${answer.stderr}`);
}

let child = await start();
let call = await person(4);
const codes = (await call('GET', '/api/items?q=shackle')).body.items.map((i) => i.code);
for (let n = 1; n <= Number(times); n++) {
  const kept = { messages: [], sheets: new Map(), edits: 0, orders: [], codes };
  const running = { on: true };
  const quiet = (work) => work.catch(() => undefined); // The server dies under them: that is what is tried.
  const work = [
    quiet(messages(kept, running)),
    quiet(messages(kept, running)),
    quiet(edits(kept, running, call)),
    quiet(edits(kept, running, call)),
    quiet(edits(kept, running, call)),
    quiet(orders(kept, running, call)),
    quiet(orders(kept, running, call)),
  ];
  await pause(1000 + random() * 3500);
  child.kill('SIGKILL');
  running.on = false;
  await Promise.all([gone(child), ...work]);
  if (n % 25 === 0) check();
  child = await start();
  call = await person(4);
  await look(kept, call);
  confirmed.messages += kept.messages.length;
  confirmed.edits += kept.edits;
  confirmed.orders += kept.orders.length;
  if (n % 10 === 0) console.log(`${n} kills: ${JSON.stringify(confirmed)}, ${lost.length} lost`);
}
// What was being read when it was killed is read by itself.
for (let tries = 0; tries < 300; tries++) {
  const { body } = await call('GET', `/api/lists/requests?filter=${encodeURIComponent('state:beingRead')}&take=1`);
  if (body.total === 0) break;
  if (tries === 299) lost.push('requests that stay being read');
  await pause(500);
}
child.kill('SIGTERM');
await gone(child);
check();
console.log(`${times} kills at random moments; confirmed before them: ${confirmed.messages} messages, ${confirmed.edits} edits, ${confirmed.orders} orders; lost: ${lost.length}`);
process.exit(lost.length === 0 ? 0 : 1);
