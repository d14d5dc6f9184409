// Invoices ten thousand orders in the background, killed with -9 now and then: each gets one invoice, numbers have no gap, each is written
// as PDF and UBL, and `check` is clean. Run by `./solvenda bench invoices [how many] [kills]`.
import { execFileSync, spawnSync } from 'node:child_process';
import { setTimeout as pause } from 'node:timers/promises';
import { gone, houseOf } from './house.mjs';

const [server, content, data, bench, many = '10000', kills = '3', port = '5397'] = process.argv.slice(2);
const billing = 9;
const { start, person } = houseOf(server, content, data, port);
let child = await start();
child.kill('SIGTERM');
await gone(child);
const made = Number(execFileSync('dotnet', [bench, 'went', data, many], { encoding: 'utf8' }).trim());
child = await start();
let call = await person(billing);
const due = (await call('GET', '/api/invoices/due')).body;
const ids = [...due.orders.map((o) => o.id), ...due.more];
let took = 0;
let began = performance.now();
const { body: begun } = await call('POST', '/api/lists/orders/deeds', { deed: 'invoice', ids, count: ids.length });
let round = begun;
for (let killed = 0; !round.over; ) {
  await pause(500);
  round = (await call('GET', `/api/rounds/${round.id}`)).body;
  if (killed < Number(kills) && round.done > ((killed + 1) * ids.length) / (Number(kills) + 1)) {
    took += performance.now() - began;
    child.kill('SIGKILL');
    await gone(child);
    child = await start();
    call = await person(billing);
    began = performance.now();
    killed++;
    console.log(`killed after ${round.done}`);
  }
}
took += performance.now() - began;
const faults = [];
const fault = (words) => (faults.push(words), console.log(`FAULT: ${words}`));
if (round.notDone) fault(`${round.notDone} were not invoiced: ${JSON.stringify(round.refused.slice(0, 3))}`);
const left = (await call('GET', '/api/invoices/due')).body.all;
if (left) fault(`${left} are still to be invoiced`);

// As the buyer has them: each number once, its UBL with the same total, and its PDF.
const numbers = [];
for (let skip = 0; ; skip += 500) {
  const { rows } = (await call('GET', `/api/lists/invoices?take=500&skip=${skip}&filter=open:any&sort=number`)).body;
  numbers.push(...rows.map((r) => r.calls));
  if (rows.length < 500) break;
}
if (new Set(numbers).size !== ids.length) fault(`${new Set(numbers).size} invoices for ${ids.length} orders`);
const writing = performance.now();
for (let at = 0; at < numbers.length; at += 20) {
  await Promise.all(
    numbers.slice(at, at + 20).map(async (number) => {
      const [pdf, ubl] = await Promise.all([call.bytes(`/api/invoices/${number}/pdf`), call.bytes(`/api/invoices/${number}/ubl`)]);
      if (!pdf?.subarray(0, 5).equals(Buffer.from('%PDF-'))) fault(`${number} has no PDF`);
      if (!ubl?.includes(`<cbc:ID>${number}</cbc:ID>`)) fault(`${number} has no UBL`);
    }),
  );
}
const wrote = performance.now() - writing;
child.kill('SIGTERM');
await gone(child);
const check = spawnSync('dotnet', [server, 'check', '--data', data], { encoding: 'utf8' });
if (check.status !== 0) fault(`check: ${check.stdout}`);
console.log(
  `${made} orders invoiced, numbered, booked, printed and told in ${(took / 1000).toFixed(0)} s (${((ids.length / took) * 1000).toFixed(0)} a second), killed ${kills} times meanwhile; ` +
    `${numbers.length} PDFs and UBLs read in ${(wrote / 1000).toFixed(0)} s; faults: ${faults.length}`,
);
process.exit(faults.length ? 1 : 0);
