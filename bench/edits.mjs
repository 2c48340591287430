// An edit saved and the planter's page opened after it, end to end over HTTP, and each view once: node bench/edits.mjs http://127.0.0.1:5180 [edits]
import { signIn } from './sign-in.mjs';
import { writeNote } from './note.mjs';

const [site, edits = '40'] = process.argv.slice(2);
const at = (list, share) => [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))];
const line = (what, times) => console.log(`${what}: median ${at(times, 0.5).toFixed(0)} ms, 9 of 10 under ${at(times, 0.9).toFixed(0)} ms, slowest ${Math.max(...times).toFixed(0)} ms`);

await signIn(site);
const ids = async () => [...(await (await fetch(`${site}/planters`)).text()).matchAll(/href="\/planters\/([a-z0-9-]+)"/g)].map((m) => m[1]).filter((id) => !['new', 'table', 'labels'].includes(id));
let planters = await ids();
// The list waits for the year like any page.
while (planters.length === 0) {
  await new Promise((done) => setTimeout(done, 1000));
  planters = await ids();
}
const ask = async (path) => {
  const from = performance.now();
  const answer = await fetch(site + path);
  const text = await answer.text();
  return { ms: performance.now() - from, kB: text.length / 1024, status: answer.status, waits: text.includes('data-reckoning') };
};

const pages = ['/year', '/grounds', '/planters', `/planters/${planters[1]}`, `/planters/${planters[1]}/edit`, `/stack/${planters[1]}`, '/turns', '/supply', '/daysheet', '/log', '/climate', '/palette', '/stock', '/year/close', '/year/sequence', '/year/ahead', '/year/rehearse', '/year/events', '/site', '/recipes'];
for (const path of pages) {
  const first = await ask(path);
  let tries = 0;
  let last = first;
  while (last.waits && tries++ < 120) {
    await new Promise((done) => setTimeout(done, 500));
    last = await ask(path);
  }
  const again = await ask(path);
  console.log(`${path}: first ${first.ms.toFixed(0)} ms${first.waits ? `, to wait for ${(tries / 2).toFixed(0)} s` : ''}, then ${again.ms.toFixed(0)} ms, ${again.kB.toFixed(0)} kB, ${again.status}`);
}

const both = [];
const saves = [];
for (let i = 0; i < Number(edits) + 5; i++) {
  const planter = planters[i % planters.length];
  const saved = await writeNote(site, planter, `edited ${i} ${Date.now()}`);
  if (!saved.ok) throw new Error(`${planter} was not saved`);
  const page = await ask(`/planters/${planter}`);
  if (i < 5) continue;
  saves.push(saved.ms);
  both.push(saved.ms + page.ms);
}
line('an edit saved', saves);
line("an edit saved and its planter's page", both);
for (const path of ['/year', '/grounds', '/planters', '/turns']) {
  await writeNote(site, planters[0], `before ${path} ${Date.now()}`);
  console.log(`${path} after an edit: ${(await ask(path)).ms.toFixed(0)} ms`);
}
