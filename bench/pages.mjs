// Asks each page of the demo app some hundred times, one request at a time, and prints the median and the slowest tenth.
// node bench/pages.mjs http://127.0.0.1:5180
import { signIn } from './sign-in.mjs';
const site = process.argv[2];
const rounds = 120;
const warmUp = 40;
const pages = [
  '/year?day=2027-04-14', '/planters', '/planters/bollard-pot-north?day=2027-04-14', '/stack/bollard-pot-north', '/displays/flag-pot-summer-2027', '/turns',
  '/supply?turn=summer-2027', '/daysheet?turn=bulbs-2026', '/log', '/climate', '/climate/ground', '/climate/stations', '/planters/great-pot/sun', '/palette', '/palette?planter=great-pot&from=2027-02-15&to=2027-02-21', '/grounds?day=2027-04-14', '/grounds?handler=looks&start=2026-09-01', '/site',
];

const ask = async (path) => {
  const from = performance.now();
  const answer = await fetch(site + path);
  const body = await answer.arrayBuffer();
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
  return { ms: performance.now() - from, bytes: body.byteLength };
};

for (let tries = 0; ; tries++) {
  try {
    await ask('/health');
    break;
  } catch (error) {
    if (tries > 100) throw error;
    await new Promise((done) => setTimeout(done, 100));
  }
}
await signIn(site);
const cold = await ask(pages[0]);
console.log(`first page after start: ${cold.ms.toFixed(0)} ms`);
console.log('page'.padEnd(48), 'median ms'.padStart(10), '90 % ms'.padStart(9), 'kB'.padStart(6));
for (const path of pages) {
  for (let i = 0; i < warmUp; i++) await ask(path);
  const times = [];
  let bytes = 0;
  for (let i = 0; i < rounds; i++) {
    const answer = await ask(path);
    times.push(answer.ms);
    bytes = answer.bytes;
  }
  times.sort((a, b) => a - b);
  console.log(path.padEnd(48), times[rounds / 2].toFixed(1).padStart(10), times[Math.floor(rounds * 0.9)].toFixed(1).padStart(9), (bytes / 1024).toFixed(0).padStart(6));
}
