// Many people at once: each opens a page, looks at it for some seconds and opens the next, while notes are saved so many times a second.
// Over several sites each person keeps to one. node bench/clients.mjs http://127.0.0.1:5180 [people] [minutes] [writes a second]
import { readFileSync } from 'node:fs';
import { setInterval } from 'node:timers';
import { signIn } from './sign-in.mjs';
import { writeNote } from './note.mjs';

const [site, people = '50', minutes = '10', perSecond = '5'] = process.argv.slice(2);
const LOOK_MS = [5_000, 15_000];
const WARM_MS = 60_000;
const pages = ['/year?day=2027-04-14', '/grounds?day=2027-04-14', '/planters', '/turns', '/supply?turn=summer-2027', '/daysheet?turn=bulbs-2026', '/log', '/palette', '/stock', '/climate', '/care', '/work', '/work/schedule', '/today', '/review'];

const at = (list, share) => list.length === 0 ? NaN : [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))];
const wait = (ms) => new Promise((done) => setTimeout(done, ms));
await signIn(site);
const overview = await (await fetch(`${site}/sites`)).text();
const found = [...overview.matchAll(/href="(\/at\/[a-z0-9-]+)\/year"/g)].map((m) => m[1]);
const bases = found.length > 1 ? found : [''];
const plantersOf = new Map();
for (const base of bases) {
  // An app that has just started says first that it reckons.
  for (let tries = 0; tries < 60 && !plantersOf.get(base)?.length; tries++) {
    if (tries > 0) await wait(1000);
    const list = await (await fetch(`${site}${base}/planters`)).text();
    const ids = [...list.matchAll(/href="(?:\/at\/[a-z0-9-]+)?\/planters\/([a-z0-9-]+)"/g)].map((m) => m[1]);
    plantersOf.set(base, ids.filter((id) => !['new', 'table', 'labels'].includes(id)));
  }
}

// What other machines on the same host took of the processors since the last sample, as a share: such seconds say nothing of the app.
const samples = [];
const sample = () => {
  const ticks = readFileSync('/proc/stat', 'utf8').split('\n')[0].trim().split(/\s+/).slice(1, 9).map(Number);
  samples.push({ at: performance.now(), all: ticks.reduce((a, b) => a + b, 0), stolen: ticks[7] });
};
const taken = (from, to) => {
  const first = samples.findLast((s) => s.at <= from) ?? samples[0];
  const last = samples.find((s) => s.at >= to) ?? samples.at(-1);
  return last.all > first.all ? (last.stolen - first.stolen) / (last.all - first.all) : 0;
};
sample();
setInterval(sample, 1000).unref();

const times = new Map();
const asked = [];
let failed = 0;
let later = 0;
const whole = [];
let warm = false;
const end = performance.now() + WARM_MS + Number(minutes) * 60_000;
const person = async (n) => {
  const base = bases[n % bases.length];
  await wait(Math.random() * LOOK_MS[1]);
  for (let i = n; performance.now() < end; i++) {
    const planters = plantersOf.get(base);
    const page = i % 6 === 5 ? '/planters/{id}' : pages[i % pages.length];
    const from = performance.now();
    const address = site + base + page.replace('{id}', planters[(i * 7) % planters.length]);
    let answer = await fetch(address);
    await answer.arrayBuffer();
    const first = performance.now() - from;
    const isWhole = !answer.headers.has('refresh');
    // As a browser does: it asks once more, with the cookie that it was given.
    while (answer.headers.has('refresh')) {
      await wait(Number(answer.headers.get('refresh')) * 1000);
      answer = await fetch(address, { headers: { cookie: answer.headers.getSetCookie().map((c) => c.split(';')[0]).join('; ') } });
      await answer.arrayBuffer();
    }
    if (warm) {
      if (!times.has(page)) times.set(page, []);
      times.get(page).push(first);
      asked.push({ from, ms: first });
      whole.push(performance.now() - from);
      if (answer.status >= 400) failed++;
      if (!isWhole) later++;
    }
    await wait(LOOK_MS[0] + Math.random() * (LOOK_MS[1] - LOOK_MS[0]));
  }
};
const everybody = Promise.all(Array.from({ length: Number(people) }, (_, n) => person(n)));
await wait(WARM_MS);
warm = true;
const writes = [];
for (let i = 0; performance.now() < end; i++) {
  const base = bases[i % bases.length];
  const planters = plantersOf.get(base);
  writes.push(writeNote(site + base, planters[Math.floor(i / bases.length) % planters.length], `written ${i}`));
  await wait(1000 / Number(perSecond));
}
await everybody;
const done = await Promise.all(writes);
const all = [...times.values()].flat();
console.log(`${bases.length} sites, ${people} people, ${minutes} minutes: ${all.length} pages, median ${at(all, 0.5).toFixed(0)} ms, 95 % under ${at(all, 0.95).toFixed(0)} ms, slowest ${Math.max(...all).toFixed(0)} ms, ${failed} failed`);
console.log(`  ${later} said first that they were still being reckoned; the page itself: median ${at(whole, 0.5).toFixed(0)} ms, 95 % under ${at(whole, 0.95).toFixed(0)} ms, slowest ${Math.max(...whole).toFixed(0)} ms`);
sample();
const ours = asked.filter((a) => taken(a.from, a.from + a.ms) < 0.1).map((a) => a.ms);
console.log(`  others took ${(100 * taken(end - Number(minutes) * 60_000, end)).toFixed(0)} % of the processors; while they took less than a tenth: ${ours.length} pages, median ${at(ours, 0.5).toFixed(0)} ms, 95 % under ${at(ours, 0.95).toFixed(0)} ms`);
for (const [page, list] of [...times].sort()) console.log(`  ${page.padEnd(34)} ${String(list.length).padStart(5)}  median ${at(list, 0.5).toFixed(0).padStart(5)} ms, 95 % under ${at(list, 0.95).toFixed(0).padStart(5)} ms`);
console.log(`writes: ${done.filter((w) => w.ok).length} of ${done.length} saved, median ${at(done.map((w) => w.ms), 0.5).toFixed(0)} ms, 95 % under ${at(done.map((w) => w.ms), 0.95).toFixed(0)} ms`);
