// How long a frame takes while a plant is dragged over an arrangement: node bench/arrange.mjs ADDRESS DISPLAY
import { createRequire } from 'node:module';
import { tapIn } from './sign-in.mjs';

const require = createRequire(new URL('../tests/browser/package.json', import.meta.url));
const { chromium } = require('@playwright/test');
const [address, display = 'ticket-trough-east-summer-2027'] = process.argv.slice(2);
const MOVES = 120;

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-quic', '--disable-component-update', '--disable-sync'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await tapIn(page, address);
await page.goto(`${address}/arrange/${display}`);
const plants = await page.locator('.is-movable').count();
const box = await page.locator('.is-movable').first().boundingBox();
await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
await page.mouse.down();
await page.evaluate(() => {
  globalThis.frames_ = [];
  let last = performance.now();
  const tick = (now) => {
    globalThis.frames_.push(now - last);
    last = now;
    requestAnimationFrame(tick);
  };
  requestAnimationFrame(tick);
});
for (let i = 0; i < MOVES; i++) await page.mouse.move(box.x + 20 + 60 * Math.sin(i / 10), box.y + 20 + 40 * Math.cos(i / 14));
const frames = (await page.evaluate(() => globalThis.frames_)).slice(2).sort((a, b) => a - b);
await page.mouse.up();
await browser.close();
const at = (share) => frames[Math.floor((frames.length - 1) * share)].toFixed(1);
console.log(`dragging one of ${plants} plants: median frame ${at(0.5)} ms, 9 of 10 under ${at(0.9)} ms, over ${frames.length} frames`);
