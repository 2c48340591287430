// Asks the supply pages of a site some forty times each: node bench/supply.mjs http://127.0.0.1:5180
import { signIn } from './sign-in.mjs';
const site = process.argv[2];
const pages = ['/supply?turn=summer-2027', '/supply?turn=year:2026-09', '/supply/basket?turn=summer-2027', '/supply/orders', '/supply/suppliers', '/supply/holding', '/supply/materials', '/supply/money', '/stock'];
await signIn(site);
const ask = async (path) => {
  const from = performance.now();
  const answer = await fetch(site + path);
  const body = await answer.text();
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
  return { ms: performance.now() - from, waits: body.includes('data-reckoning'), kB: body.length / 1024 };
};
console.log('page'.padEnd(40), 'first ms'.padStart(9), 'median ms'.padStart(10), '90 % ms'.padStart(9), 'kB'.padStart(6));
for (const path of pages) {
  const first = await ask(path);
  for (let tries = 0; tries < 100 && (await ask(path)).waits; tries++) await new Promise((done) => setTimeout(done, 300));
  const times = [];
  let kB = 0;
  for (let i = 0; i < 40; i++) {
    const answer = await ask(path);
    times.push(answer.ms);
    kB = answer.kB;
  }
  times.sort((a, b) => a - b);
  console.log(path.padEnd(40), first.ms.toFixed(0).padStart(9), times[20].toFixed(0).padStart(10), times[36].toFixed(0).padStart(9), kB.toFixed(0).padStart(6));
}
