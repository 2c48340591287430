// The map at a thousand planters: first paint and moving the day in the browser. node bench/grounds.mjs http://127.0.0.1:5180
import { createRequire } from 'node:module';
import { tapIn } from './sign-in.mjs';

const { chromium } = createRequire(new URL('../tests/browser/package.json', import.meta.url))('@playwright/test');
const site = process.argv[2];
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-quic', '--disable-background-networking'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await tapIn(page, site);
await page.goto(`${site}/grounds?day=2027-04-14`, { waitUntil: 'networkidle' });
const paints = [];
for (let i = 0; i < 7; i++) {
  await page.goto(`${site}/grounds?day=2027-04-14`, { waitUntil: 'networkidle' });
  paints.push(await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0].startTime));
}
const moves = await page.evaluate(() => {
  const times = [];
  for (let i = 0; i < 365; i += 3) {
    const from = performance.now();
    document.dispatchEvent(new CustomEvent('meadow:moving', { detail: { index: i } }));
    // Asking for a box makes the browser lay out what was changed.
    document.querySelector('[data-grounds-map]').getBoundingClientRect();
    times.push(performance.now() - from);
  }
  return times.sort((a, b) => a - b);
});
const zooms = await page.evaluate(async () => {
  const map = document.querySelector('[data-grounds-map]');
  map.focus();
  const frames = [];
  let last = performance.now();
  for (let i = 0; i < 60; i++) {
    map.dispatchEvent(new KeyboardEvent('keydown', { key: i % 2 ? 'ArrowRight' : 'ArrowLeft', bubbles: true }));
    await new Promise(requestAnimationFrame);
    frames.push(performance.now() - last);
    last = performance.now();
  }
  return frames.sort((a, b) => a - b);
});
const count = await page.locator('[data-planter]').count();
const middle = (list) => list[Math.floor(list.length / 2)].toFixed(1);
console.log(`${count} planters on the map: first paint ${middle(paints.sort((a, b) => a - b))} ms; a day moved in ${middle(moves)} ms, slowest ${moves.at(-1).toFixed(1)} ms; panned at ${middle(zooms)} ms a frame`);
await browser.close();
