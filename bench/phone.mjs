// A crew's phone: how fast its sheet opens without signal, and how fast five hundred entries are accepted that were sent at once.
// node bench/phone.mjs http://127.0.0.1:5180 [day]
import { createRequire } from 'node:module';
import { tapIn } from './sign-in.mjs';

const require = createRequire(new URL('../tests/browser/package.json', import.meta.url));
const { chromium } = require('@playwright/test');
const [site, day = '2027-05-17'] = process.argv.slice(2);
const LOOKS = 9;
const ENTRIES = 500;
const middle = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-quic'] });
try {
  const phone = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const page = await phone.newPage();
  await tapIn(page, site);
  await page.goto(`${site}/work?day=${day}`);
  const tasks = page.locator('tbody tr input[name="tasks[]"]');
  await tasks.first().waitFor({ timeout: 120_000 });
  const me = (await page.locator('.person a[href="/me"]').textContent()).trim();
  for (const task of (await tasks.all()).slice(0, 12)) await task.check();
  await page.locator('fieldset.give label', { hasText: me }).getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Give what is ticked' }).click();
  await page.locator('.said').waitFor();

  const sheet = `${site}/today?day=${day}`;
  await page.goto(sheet);
  await page.locator('.stop').first().waitFor({ timeout: 120_000 });
  for (let i = 0; i < 120; i++) {
    const held = await page
      .evaluate(async (it) => Boolean(navigator.serviceWorker.controller && (await (await caches.open('meadow-pages-1')).match(it))), sheet)
      .catch(() => false);
    if (held) break;
    await page.waitForTimeout(500);
  }
  await phone.setOffline(true);
  const opened = [];
  for (let i = 0; i < LOOKS; i++) {
    const from = performance.now();
    await page.goto(sheet);
    await page.locator('.stop').first().waitFor();
    opened.push(performance.now() - from);
  }
  console.log(`a sheet of ${await page.locator('.stop').count()} stops without signal: opens in ${middle(opened).toFixed(0)} ms, at most ${Math.max(...opened).toFixed(0)} ms`);

  await phone.setOffline(false);
  const sent = await page.evaluate(
    async ({ count, on }) => {
      const place = document.querySelector('[data-crew-day]');
      const token = place.querySelector('[name=__RequestVerificationToken]').value;
      const lines = [...place.querySelectorAll('[data-given] [data-line]')].map((l) => ({ stop: l.closest('[data-given]').dataset, line: Number(l.dataset.line) }));
      const entries = Array.from({ length: count }, (_, i) => {
        const { stop, line } = lines[i % lines.length];
        return { id: window.crypto.randomUUID(), given: stop.given, mark: stop.mark, day: on, lines: [{ line, done: i % 2 }] };
      });
      const from = performance.now();
      const answer = await fetch(place.dataset.tell, { method: 'POST', headers: { RequestVerificationToken: token, 'Content-Type': 'application/json' }, body: JSON.stringify({ entries }) });
      const { answers } = await answer.json();
      return { ms: performance.now() - from, kept: answers.filter((a) => !a.why).length };
    },
    { count: ENTRIES, on: day },
  );
  console.log(`${ENTRIES} entries at once: ${sent.kept} kept in ${sent.ms.toFixed(0)} ms`);
} finally {
  await browser.close();
}
