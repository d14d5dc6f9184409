// Reads the same interchanges by our reader and by two general packages, in one run, and prints megabytes a second.
// Run by `./solvenda bench edi`; takes the two files and the benchmark program.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);
const [x12File, edifactFile, bench] = process.argv.slice(2);
const { X12Parser } = require('node-x12');
const Parser = require('edifact/parser.js');

// Both are given as much time to warm up as ours: the best of some runs.
function best(bytes, run, times = 4) {
  let least = Infinity;
  for (let i = 0; i < times; i++) {
    const start = process.hrtime.bigint();
    run();
    least = Math.min(least, Number(process.hrtime.bigint() - start) / 1e9);
  }
  return bytes / least / 1e6;
}

const x12 = readFileSync(x12File, 'latin1');
// The other parser takes neither line breaks between segments nor small letters, so it gets none.
const edifact = readFileSync(edifactFile, 'latin1').replaceAll('\n', '').toUpperCase();
const theirs = {
  x12: best(x12.length, () => new X12Parser(true).parse(x12)),
  edifact: best(edifact.length, () => {
    const parser = new Parser();
    const segments = [];
    let elements;
    let components;
    parser.onopensegment = (name) => segments.push({ name, elements: (elements = []) });
    parser.onelement = () => elements.push((components = []));
    parser.oncomponent = (data) => components.push(data);
    parser.onclosesegment = () => {};
    parser.write(edifact);
    parser.end();
    if (segments.length < 1000) throw new Error('the other parser read nothing');
  }),
};
const ours = Object.fromEntries(
  [
    ['x12', x12File],
    ['edifact', edifactFile],
  ].map(([name, file]) => [name, execFileSync('dotnet', [bench, 'edi-read', file], { encoding: 'utf8' }).trim().split(' ').map(Number)]),
);
console.log('| interchange | ours, every element | the other, every element | ratio | ours, into documents |');
console.log('|---|---|---|---|---|');
for (const [name, words, other] of [
  ['x12', `850, ${(x12.length / 1e6).toFixed(1)} MB`, 'node-x12'],
  ['edifact', `ORDERS, ${(edifact.length / 1e6).toFixed(1)} MB`, 'edifact'],
])
  console.log(`| ${words} | ${ours[name][0].toFixed(0)} MB/s | ${other} ${theirs[name].toFixed(0)} MB/s | ${(ours[name][0] / theirs[name]).toFixed(1)} | ${ours[name][1].toFixed(0)} MB/s |`);
