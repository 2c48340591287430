// Reads while others write: pages of the site are asked for, one after the other by a few readers, while a note is saved so many times
// a second. node bench/writes.mjs http://127.0.0.1:5180 [writes a second] [seconds]
import { signIn } from './sign-in.mjs';
import { writeNote } from './note.mjs';

const [site, perSecond = '5', seconds = '15'] = process.argv.slice(2);
const pages = ['/year?day=2027-04-14', '/grounds?day=2027-04-14', '/planters', '/turns', '/supply?turn=summer-2027', '/log', '/palette'];
const READERS = 4;

const at = (list, share) => list.length === 0 ? NaN : [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))];
await signIn(site);
const planters = [...(await (await fetch(`${site}/planters`)).text()).matchAll(/href="\/planters\/([a-z0-9-]+)"/g)].map((m) => m[1]).filter((id) => !['new', 'table', 'labels'].includes(id));

const reads = async (until) => {
  const times = [];
  let failed = 0;
  for (let i = 0; performance.now() < until; i++) {
    const path = i % 8 === 7 ? `/planters/${planters[(i * 7) % planters.length]}` : pages[i % pages.length];
    const from = performance.now();
    const answer = await fetch(site + path);
    await answer.arrayBuffer();
    if (answer.status >= 500) failed++;
    times.push(performance.now() - from);
  }
  return { times, failed };
};
const readers = async (ms) => {
  const all = await Promise.all(Array.from({ length: READERS }, () => reads(performance.now() + ms)));
  return { times: all.flatMap((r) => r.times), failed: all.reduce((sum, r) => sum + r.failed, 0) };
};

await readers(3000);
const quiet = await readers(Number(seconds) * 500);
const writes = [];
let stop = false;
const writer = (async () => {
  for (let i = 0; !stop; i++) {
    writes.push(writeNote(site, planters[i % planters.length], `written ${i}`));
    await new Promise((done) => setTimeout(done, 1000 / Number(perSecond)));
  }
})();
const busy = await readers(Number(seconds) * 1000);
stop = true;
await writer;
const done = await Promise.all(writes);
const line = (what, r) => console.log(`${what}: ${r.times.length} reads, median ${at(r.times, 0.5).toFixed(0)} ms, 95 % under ${at(r.times, 0.95).toFixed(0)} ms, slowest ${Math.max(...r.times).toFixed(0)} ms, ${r.failed} failed`);
line(`${planters.length} planters, nobody writing`, quiet);
line(`${perSecond} writes a second`, busy);
console.log(`writes: ${done.filter((w) => w.ok).length} of ${done.length} saved, median ${at(done.map((w) => w.ms), 0.5).toFixed(0)} ms, 95 % under ${at(done.map((w) => w.ms), 0.95).toFixed(0)} ms`);
