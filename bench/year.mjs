// The Year at a thousand planters: the server's answer, first paint and scrolling. node bench/year.mjs http://127.0.0.1:5180
import { createRequire } from 'node:module';
import { signIn, tapIn } from './sign-in.mjs';

const { chromium } = createRequire(new URL('../tests/browser/package.json', import.meta.url))('@playwright/test');
const site = process.argv[2];
const middle = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];
const path = '/year?day=2027-04-14';
await signIn(site);
const first = performance.now();
await (await fetch(site + path)).arrayBuffer();
const cold = performance.now() - first;
const answers = [];
let bytes = 0;
for (let i = 0; i < 25; i++) {
  const from = performance.now();
  bytes = (await (await fetch(site + path)).arrayBuffer()).byteLength;
  answers.push(performance.now() - from);
}
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-quic', '--disable-component-update', '--disable-sync'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await tapIn(page, site);
const paints = [];
for (let i = 0; i < 7; i++) {
  await page.goto(site + path, { waitUntil: 'load' });
  paints.push(await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0].startTime));
}
for (let i = 0; i < 4 && (await page.locator('[data-more]').count()) > 0; i++) {
  await page.locator('[data-more]').first().click();
  await page.waitForTimeout(700);
}
const frames = await page.evaluate(async () => {
  const times = [];
  let last = performance.now();
  for (let i = 0; i < 90; i++) {
    window.scrollBy(0, 60);
    await new Promise(requestAnimationFrame);
    times.push(performance.now() - last);
    last = performance.now();
  }
  return times.slice(2);
});
const rows = await page.locator('[data-odds]').count();
await browser.close();
console.log(`the year: first answer ${cold.toFixed(0)} ms, then ${middle(answers).toFixed(0)} ms at the median, ${(bytes / 1024).toFixed(0)} kB; first paint ${middle(paints).toFixed(0)} ms; ${rows} rules unfolded, scrolled at ${middle(frames).toFixed(1)} ms a frame`);
