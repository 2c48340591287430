// Processor time that the app takes for a save, for a page that is known and for a save with the page after it: it says the same on a busy machine, where
// waiting times do not. node bench/processor.mjs http://127.0.0.1:5180 PID, the app's, on Linux
import { readFileSync } from 'node:fs';
import { signIn } from './sign-in.mjs';
import { writeNote } from './note.mjs';

const [site, pid] = process.argv.slice(2);
const TICK_MS = 10;
const WARM = 14;
const TIMES = 10;
const pages = ['/year?day=2027-04-14', '/grounds?day=2027-04-14', '/planters', '/turns', '/supply?turn=summer-2027', '/daysheet?turn=bulbs-2026', '/log', '/palette', '/stock', '/climate', '/care', '/work', '/work/schedule', '/today', '/review', '/planters/{id}'];

const wait = (ms) => new Promise((done) => setTimeout(done, ms));
const taken = () => {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
  return (Number(fields[11]) + Number(fields[12])) * TICK_MS;
};
// What a page or a save has set going is over.
const settle = async () => {
  for (let quiet = 0, last = taken(); quiet < 3; ) {
    await wait(500);
    const now = taken();
    quiet = now - last < 3 * TICK_MS ? quiet + 1 : 0;
    last = now;
  }
};
const open = async (path) => {
  for (;;) {
    const answer = await fetch(site + path);
    const text = await answer.text();
    if (!answer.headers.has('refresh')) return text;
    await wait(300);
  }
};

await signIn(site);
const planters = [...(await open('/planters')).matchAll(/href="\/planters\/([a-z0-9-]+)"/g)].map((m) => m[1]).filter((id) => !['new', 'table', 'labels'].includes(id));
let saved = 0;
const save = () => writeNote(site, planters[saved % planters.length], `written ${saved++}`);
const of = (path) => path.replace('{id}', planters[3]);
for (let i = 0; i < WARM; i++) for (const path of pages) await open(of(path));
for (let i = 0; i < planters.length; i++) await save();
for (const path of pages) {
  await save();
  await open(of(path));
}
const cost = async (work) => {
  await settle();
  const from = taken();
  for (let i = 0; i < TIMES; i++) await work();
  await settle();
  return ((taken() - from) / TIMES).toFixed(0);
};
console.log(`a save and its form: ${await cost(save)} ms`);
for (const path of pages) {
  await open(of(path));
  const again = await cost(() => open(of(path)));
  const after = await cost(async () => {
    await save();
    await open(of(path));
    await wait(300);
  });
  console.log(`${path.padEnd(30)} known ${again.padStart(4)} ms, after a save, with it ${after.padStart(4)} ms`);
}
