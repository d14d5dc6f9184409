// Takes messages in by the thousand. Run by `./solvenda bench intake [kill|edi] [N]`; takes the server's library, its content root, a folder
// for the data, the benchmarks' library, what to do and how many.
// kill: N messages lie at each way in (mail, a mailbox by IMAP, EDI, files, the marketplace, and by the door); the server is killed with -9 at random moments
//   while it takes them and started again; then each is there once, and each interchange was answered at least once, with the same id.
// edi: N orders of 20 lines lie in the EDI folder; how long until each is stored, read, priced and checked, beside bare inserts of as many
//   rows, each order in a transaction of its own with synchronous=FULL in the same run; and how fast the screens are meanwhile.
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { gone, houseOf, machine } from './house.mjs';
import { imap, mailbox } from './imap.mjs';

const [server, content, data, bench, what = 'edi', count = '1000', port = '5398'] = process.argv.slice(2);
const { base, start, person } = houseOf(server, content, data, port);
const N = Number(count);
let control = 700_000;
const outside = path.join(data, 'outside');

// Reads the house's own file, beside the house.
function asked(sql) {
  const answer = execFileSync('dotnet', [bench, 'ask', path.join(data, 'solvenda.db'), sql], { encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 });
  return JSON.parse(answer);
}

function lay(folder, name, text) {
  fs.mkdirSync(folder, { recursive: true });
  fs.writeFileSync(path.join(folder, `.${name}`), text);
  fs.renameSync(path.join(folder, `.${name}`), path.join(folder, name));
}

const items = ['SHK-BOW-10', 'THM-SS-12', 'FND-A3-BL', 'PS3-12-WH', 'PS3-16-BK'];
function order(po, control, lines) {
  const body = Array.from({ length: lines }, (_, i) => `PO1*${i + 1}*${1 + (i % 9)}*EA***VP*${items[i % 3]}~`).join('');
  return `ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*${String(control).padStart(9, '0')}*0*P*>~GS*PO*NORTHGANNET*BRINEMOOR*20260305*0914*${control}*X*004010~ST*850*0001~BEG*00*SA*${po}**20260305~CUR*BY*USD~FOB*CC**CIF Port of Gannet~ITD*01*3*****60~DTM*002*20270420~N1*ST*Northgannet Depot 7*92*NG-07~N3*77 Pier Road~N4*Gannet*ME*04002*US~${body}CTT*${lines}~SE*${11 + lines}*0001~GE*1*${control}~IEA*1*${String(control).padStart(9, '0')}~`;
}

const mail = (n) => `From: buyer${n}@intake.example\r\nTo: orders@brinemoor.example\r\nMessage-ID: <in-${n}@intake.example>\r\nSubject: intake mail ${n}\r\n\r\n${1 + (n % 40)} pcs SHK-BOW-10\r\n`;

async function drained(until) {
  for (let tries = 0; tries < 6000; tries++) {
    const left = asked(`SELECT count(*) AS n FROM request WHERE State = 'Reading'`)[0].n;
    if (left === 0 && until()) return;
    await pause(250);
  }
  throw new Error('It is not all taken in.');
}

async function kill() {
  const box = imap(Number(port) - 2);
  const first = await start();
  const cass = await person(10);
  const now = (await cass('GET', '/api/setup/ways/mailbox')).body;
  const set = await cass('POST', '/api/setup/ways', {
    said: { ...now.rule.said, settings: { imapServer: box.server, ...mailbox } },
    seen: now.rule.version,
  });
  if (!set.ok) throw new Error(JSON.stringify(set.body));
  first.kill('SIGTERM');
  await gone(first);
  box.lay(Array.from({ length: N }, (_, n) => mail(n).replace('<in-', '<box-').replace('intake mail', 'intake box')));
  for (let n = 0; n < N; n++) {
    lay(path.join(outside, 'mail', 'in'), `m${n}.eml`, mail(n));
    lay(path.join(outside, 'edi', 'in'), `e${n}.x12`, order(`IN-${n}`, 400_000 + n, 2));
    lay(path.join(outside, 'file', 'in'), `f${n}.txt`, `intake file ${n}\n\n${1 + (n % 40)} pcs SHK-BOW-10\n`);
  }
  const sold = Array.from({ length: N }, (_, n) => ({
    id: `HI-${n}`,
    currency: 'EUR',
    buyer: { name: 'Ida Kestle' },
    deliverTo: { name: 'Ida Kestle', street: '3 Slip Lane', postcode: 'A65 F4E2', city: 'Skerrow', country: 'IE' },
    lines: [{ line: 1, sku: 'FND-A3-BL', quantity: 1, unitPrice: '82.00', taxIncluded: true }],
    shipping: '0.00',
    total: '82.00',
    payment: { state: 'paid', reference: `P-${n}` },
  }));
  lay(path.join(outside, 'channel', 'harbourmart', 'feed'), 'intake.json', JSON.stringify({ orders: sold }));
  // By the door each is sent until it is answered, with the key of the first try.
  let at = 0;
  let on = true;
  const door = (async () => {
    while (on && at < N) {
      try {
        const answer = await fetch(`${base}/api/v1/inbound?filename=d${at}.txt`, {
          method: 'POST',
          headers: { ...machine, 'idempotency-key': `door-${at}` },
          body: `intake door ${at}\n\n${1 + (at % 40)} pcs SHK-BOW-10\n`,
        });
        if (answer.ok) at++;
      } catch {
        await pause(50);
      }
    }
  })();
  let kills = 0;
  const ended = () => asked(`SELECT count(*) AS n FROM request WHERE Subject LIKE 'intake mail %' OR Subject LIKE '850 IN-%' OR Subject LIKE 'f%.txt' OR Subject LIKE '%HI-%' OR Subject LIKE 'intake box %'`)[0].n;
  let child = await start();
  while (ended() < 5 * N && kills < 12) {
    await pause(3_000 + Math.random() * 12_000);
    child.kill('SIGKILL');
    await gone(child);
    kills++;
    child = await start();
  }
  await door;
  on = false;
  await drained(() => ended() >= 5 * N && fs.readdirSync(path.join(outside, 'edi', 'out')).filter((f) => f.startsWith('997')).length >= N);
  const problems = [];
  const once = (way, of) => {
    const rows = asked(`SELECT ${of} AS what, count(*) AS n FROM request r JOIN raw_message m ON m.Id = r.RawId WHERE r.Channel = '${way}' AND ${of} IS NOT NULL GROUP BY 1`);
    const wrong = rows.filter((r) => r.n !== 1);
    console.log(`${way}: ${rows.length} messages, ${wrong.length} of them not once`);
    if (rows.length < N || wrong.length) problems.push(way);
  };
  once('mail', `CASE WHEN r.Subject LIKE 'intake mail %' THEN r.Subject END`);
  once('edi', `CASE WHEN r.Subject LIKE '850 IN-%' THEN r.Subject END`);
  once('mailbox', `CASE WHEN r.Subject LIKE 'intake box %' THEN r.Subject END`);
  once('file', `CASE WHEN m.Filename LIKE 'f%.txt' THEN m.Filename END`);
  once('harbourmart', `CASE WHEN r.Subject LIKE '%HI-%' THEN r.Subject END`);
  once('machine', `CASE WHEN m.Filename LIKE 'd%.txt' THEN m.Filename END`);
  const unsent = asked(`SELECT count(*) AS n FROM request r WHERE r.Subject LIKE '850 IN-%' AND NOT EXISTS (SELECT 1 FROM outbox o WHERE o.Key = lower(r.Number) || '.answer' AND o.SentAt IS NOT NULL)`)[0].n;
  const twice = asked(`SELECT count(*) AS n FROM (SELECT Key FROM outbox GROUP BY Key HAVING count(*) > 1)`)[0].n;
  console.log(`killed ${kills} times; interchanges unanswered ${unsent}, answers with one id twice ${twice}`);
  child.kill('SIGTERM');
  await gone(child);
  box.end();
  if (problems.length || unsent || twice) {
    console.error(`not as it must be: ${problems.join(', ')}`);
    process.exit(1);
  }
}

// So many orders from the folder to stored, read, priced and checked; how long that took, in milliseconds. Asking how far it is starts a
// program of its own, which takes a third of a second of one processor: where screens are measured it is asked seldom.
async function through(po, count, every = 1_000) {
  for (let n = 0; n < count; n++) fs.writeFileSync(path.join(data, `${po}${n}.x12`), order(`${po}-${n}`, control++, 20));
  const from = performance.now();
  for (let n = 0; n < count; n++) fs.renameSync(path.join(data, `${po}${n}.x12`), path.join(outside, 'edi', 'in', `${po}${n}.x12`));
  const done = () => asked(`SELECT count(*) AS n FROM request WHERE Subject LIKE '850 ${po}-%' AND Weighed = Version AND WorthMinor IS NOT NULL`)[0].n;
  while (done() < count) await pause(every);
  return performance.now() - from;
}

async function edi() {
  const child = await start();
  const cass = await person(10);
  const nell = await person(3);
  const now = (await cass('GET', '/api/setup/ways/edi')).body;
  const passes = now.checks.map((c) => c.id);
  const said = { channel: 'edi', buyer: null, keeper: 1, open: true, through: false, leastSurePercent: 70, passes, newAddresses: true };
  const set = await cass('POST', '/api/setup/ways', { said, seen: now.rule.version });
  if (set.status !== 200) throw new Error(JSON.stringify(set.body));
  await pause(5_000);
  const alone = await screens(nell, 40);
  // Once through the code first, as a house that has worked for a while has been.
  await through('WU', 300);
  const took = await through('ED', N);
  // Once more, while a person looks from screen to screen.
  let running = true;
  const meanwhile = (async () => {
    const all = [];
    while (running) {
      all.push(...(await screens(nell, 1)));
      await pause(200);
    }
    return all;
  })();
  await through('SC', N, 6_000);
  running = false;
  const busy = await meanwhile;
  const inserts = Number(execFileSync('dotnet', [bench, 'bare', path.join(data, 'bare.db'), String(N)], { encoding: 'utf8' }));
  const p95 = (list) => list.map((t) => t.ms).sort((a, b) => a - b)[Math.floor(list.length * 0.95)].toFixed(0);
  const each = [...new Set(busy.map((t) => t.at))].map((at) => `${at} ${p95(busy.filter((t) => t.at === at))}`).join(', ');
  console.log(`${N} orders of 20 lines, stored, read, priced and checked: ${(took / 1000).toFixed(1)} s, ${(N / (took / 1000)).toFixed(1)} a second`);
  console.log(`bare inserts of as many rows: ${(inserts / 1000).toFixed(1)} s; ours takes ${(took / inserts).toFixed(1)} times as long`);
  console.log(`screens meanwhile: ${p95(busy)} ms p95 of ${busy.length}; alone before: ${p95(alone)} ms (${each})`);
  child.kill('SIGTERM');
  await gone(child);
}

async function screens(call, times) {
  const took = [];
  for (let i = 0; i < times; i++) {
    for (const at of ['/api/desk', '/api/lists/requests?take=100', '/api/lists/orders?take=100']) {
      const from = performance.now();
      await call('GET', at);
      took.push({ at, ms: performance.now() - from });
    }
    await pause(50);
  }
  return took;
}

await (what === 'kill' ? kill() : edi());
