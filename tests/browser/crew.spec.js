// Work is given at the desk and done in the yard: without signal from the second stop on, with the app killed and the phone empty in between.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { chromium } from '@playwright/test';
import ICAL from 'ical.js';
import { test, expect, desk } from './site.js';

const DAY = '2027-05-17';

// A phone of its own, whose storage outlives its being switched off.
const switchOn = async (folder, cookies) => {
  const phone = await chromium.launchPersistentContext(folder, {
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-quic'],
    viewport: { width: 390, height: 844 },
    hasTouch: true,
  });
  await phone.addCookies(cookies);
  return { phone, page: phone.pages()[0] ?? (await phone.newPage()) };
};

// A page is there without signal once the phone holds it.
// A page that is still being reckoned opens by itself meanwhile; what was asked of the one before goes with it.
const held = (page, url) =>
  expect
    .poll(() =>
      page
        .evaluate(async (it) => Boolean(navigator.serviceWorker.controller && (await (await caches.open('meadow-pages-1')).match(it))), url)
        .catch(() => false),
    )
    .toBe(true);

// What a phone keeps until it is sent: how each line stands, in the order in which it was said.
const kept = (page) =>
  page.evaluate(
    () =>
      new Promise((resolve, reject) => {
        const asked = window.indexedDB.open('meadow-outbox');
        asked.onerror = reject;
        asked.onsuccess = () => {
          const all = asked.result.transaction('entries').objectStore('entries').getAll();
          all.onerror = reject;
          all.onsuccess = () => {
            asked.result.close();
            resolve(all.result.sort((a, b) => (a.id < b.id ? -1 : 1)).flatMap((e) => e.entry.lines.map((l) => `${l.line}: ${l.done}`)));
          };
        };
      }),
  );

// A tap that went beside its line, because the sheet moved under it on a slow phone, is seen and made again.
const tap = (tick) =>
  expect(async () => {
    if ((await tick.getAttribute('aria-pressed')) !== 'true') await tick.click();
    await expect(tick).toHaveAttribute('aria-pressed', 'true', { timeout: 1000 });
  }).toPass();

test('a lead gives work, a phone loses its signal and its battery, and in the evening nothing is lost or counted twice', async ({ page }) => {
  test.setTimeout(180_000);
  await page.goto(`${desk}/work?day=${DAY}`);
  const day = await page.locator('#day').inputValue();
  const me = (await page.locator('.person a[href="/me"]').textContent()).trim();
  const rows = page.locator('tbody tr', { has: page.locator('input[name="tasks[]"]') });
  const places = [];
  for (let i = 0; i < 2; i++) {
    places.push((await rows.nth(i).locator('a').first().textContent()).trim());
    await rows.nth(i).locator('input[name="tasks[]"]').check();
  }
  await page.locator('fieldset.give label', { hasText: me }).getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Give what is ticked' }).click();
  await expect(page.locator('.said')).toContainText(`given to ${me}`);

  const folder = mkdtempSync(join(tmpdir(), 'meadow-phone-'));
  const cookies = await page.context().cookies(desk);
  try {
    let { phone, page: sheet } = await switchOn(folder, cookies);
    await sheet.goto(`${desk}/today?day=${day}`);
    const stopAt = (place) => sheet.locator('.stop', { has: sheet.locator('h2', { hasText: new RegExp(`^\\d+ ${place}$`) }) }).last();
    for (const place of places) await expect(stopAt(place)).toBeVisible();
    // One of them may only be emptied; the signal is lost where something goes in.
    if ((await stopAt(places[1]).locator('.goes-in').count()) === 0) places.reverse();
    expect(await sheet.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await held(sheet, `${desk}/today?day=${day}`);
    await stopAt(places[0]).locator('.tick').first().click();
    await expect(sheet.locator('[data-queue]:visible')).toContainText('All is sent');

    // No signal from the second stop on.
    await phone.setOffline(true);
    const second = stopAt(places[1]);
    for (const tick of await second.locator('.tick').all()) await tap(tick);
    const goesIn = second.locator('.goes-in').first();
    const count = Number(await goesIn.getAttribute('data-count'));
    await goesIn.locator('[data-step="-1"]').click();
    await goesIn.locator('[data-short-choice]').selectOption('Missing');
    // Every tick, the step back and the reason wait by themselves.
    const lines = await second.locator('[data-line]').evaluateAll((all) => all.map((l) => [l.dataset.line, l.dataset.count]));
    const lastOf = await goesIn.getAttribute('data-line');
    const said = [...lines.map(([line, all]) => `${line}: ${all}`), `${lastOf}: ${count - 1}`, `${lastOf}: ${count - 1}`];
    await expect.poll(() => kept(sheet)).toEqual(said);
    const waiting = `${said.length} wait to be sent`;
    await expect(sheet.locator('[data-queue]')).toHaveText(waiting);
    // The battery is empty; switched on again, still without signal, the sheet opens with all that was ticked.
    await phone.close();
    ({ phone, page: sheet } = await switchOn(folder, cookies));
    await phone.setOffline(true);
    await sheet.goto(`${desk}/today?day=${day}`);
    await expect(sheet.locator('[data-queue]')).toHaveText(waiting);
    await expect(stopAt(places[1]).locator('.goes-in output').first()).toHaveText(String(count - 1));
    await expect(stopAt(places[1])).toHaveClass(/is-done/);

    // The clock is an hour wrong when the signal is back.
    await sheet.evaluate(() => {
      const now = Date.now;
      Date.now = () => now() - 3_600_000;
    });
    await phone.setOffline(false);
    for (const tick of (await stopAt(places[0]).locator('.tick').all()).reverse()) await tap(tick);
    await expect(sheet.locator('[data-queue]')).toContainText('All is sent');
    await expect(sheet.locator('[data-refusals] li')).toHaveCount(0);
    await phone.close();

    await page.goto(`${desk}/work?day=${day}`);
    const [, done, all] = (await page.locator('h1').textContent()).match(/(\d+) of (\d+) tasks done/);
    expect(done).toBe(all);
    await expect(page.locator('.came-back li', { hasText: places[1] })).toContainText(`${count - 1} of ${count}`);
    await page.locator('.came-back li', { hasText: places[1] }).getByRole('button', { name: 'Leave it so' }).click();
    await expect(page.locator('.came-back')).toHaveCount(0);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

test('two phones tell of one task, one without signal, while the sheet changes: each count stands once, and who differs is named', async ({ page, browser }) => {
  test.setTimeout(120_000);
  await page.goto(`${desk}/work?day=${DAY}`);
  const rows = page.locator('tbody tr', { has: page.locator('input[name="tasks[]"]') });
  const place = (await rows.first().locator('a').first().textContent()).trim();
  await rows.first().locator('input[name="tasks[]"]').check();
  const names = ['Pilar Ruvane', 'Jory Tamsel'];
  for (const name of names) await page.locator('fieldset.give label', { hasText: name }).getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Give what is ticked' }).click();
  await expect(page.locator('.said')).toContainText('given to');

  const phones = [];
  for (const name of names) {
    const phone = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
    const sheet = await phone.newPage();
    await sheet.goto(`${desk}/signin`);
    await sheet.getByRole('button', { name: new RegExp(name) }).click();
    await sheet.goto(`${desk}/today?day=${DAY}`);
    await expect(sheet.locator('.stop')).toHaveCount(1);
    await held(sheet, `${desk}/today?day=${DAY}`);
    phones.push({ phone, sheet });
  }
  const [away, near] = phones;
  await away.phone.setOffline(true);
  // Both tick all of it; the one without signal counts one fewer of the first that goes in.
  for (const { sheet } of phones) for (const tick of await sheet.locator('.stop .tick').all()) await tick.click();
  await away.sheet.locator('.goes-in [data-step="-1"]').first().click();
  await away.sheet.locator('.goes-in [data-short-choice]').first().selectOption('Missing');
  await expect(near.sheet.locator('[data-queue]')).toContainText('All is sent');
  await away.phone.setOffline(false);
  await expect(away.sheet.locator('[data-queue]')).toContainText('All is sent');
  await expect(away.sheet.locator('[data-refusals] li')).toHaveCount(0);
  // Whatever came first, the greater count holds, and the desk hears of it.
  await page.goto(`${desk}/work?day=${DAY}`);
  const back = page.locator('.came-back li', { hasText: place });
  await expect(back).toContainText('the greater count holds');
  await back.getByRole('button', { name: 'Leave it so' }).click();
  await expect(back).toHaveCount(0);
  for (const { phone } of phones) await phone.close();
});

// A server of its own for the same site, that can be killed.
const freePort = () =>
  new Promise((done) => {
    const asked = createServer().listen(0, '127.0.0.1', () => {
      const { port } = asked.address();
      asked.close(() => done(port));
    });
  });

const serve = async (port) => {
  const server = spawn(
    'dotnet',
    ['../../artifacts/bin/Web/release_linux-x64/UnrulyMeadow.Web.dll', '--urls', `http://127.0.0.1:${port}`, '--contentRoot', resolve('../../src/Web')],
    { env: { ...process.env, MEADOW_DB: process.env.MEADOW_DESK_DB, ASPNETCORE_ENVIRONMENT: 'Production' }, stdio: 'ignore' },
  );
  await expect.poll(() => fetch(`http://127.0.0.1:${port}/health`).then((a) => a.ok, () => false)).toBe(true);
  return server;
};

test('a server that is killed while a crew ticks gets all of it once it is there again', async ({ page, browser }) => {
  test.setTimeout(180_000);
  await page.goto(`${desk}/work?day=${DAY}`);
  const rows = page.locator('tbody tr', { has: page.locator('input[name="tasks[]"]') });
  const place = (await rows.first().locator('a').first().textContent()).trim();
  await rows.first().locator('input[name="tasks[]"]').check();
  await page.locator('fieldset.give label', { hasText: 'Oona Brack' }).getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Give what is ticked' }).click();
  await expect(page.locator('.said')).toContainText('given to');

  const port = await freePort();
  let server = await serve(port);
  const phone = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  try {
    const sheet = await phone.newPage();
    await sheet.goto(`http://127.0.0.1:${port}/signin`);
    await sheet.getByRole('button', { name: /Oona Brack/ }).click();
    await sheet.goto(`http://127.0.0.1:${port}/today?day=${DAY}`);
    const stop = sheet.locator('.stop', { has: sheet.locator('h2', { hasText: place }) }).last();
    await expect(stop).toBeVisible();
    await held(sheet, `http://127.0.0.1:${port}/today?day=${DAY}`);

    server.kill('SIGKILL');
    for (const tick of await stop.locator('.tick').all()) await tap(tick);
    await expect(sheet.locator('[data-queue]')).toHaveText(`${await stop.locator('.tick').count()} wait to be sent`);
    // The sheet opens without the server, and shows what was ticked.
    await sheet.goto(`http://127.0.0.1:${port}/today?day=${DAY}`);
    await expect(stop).toHaveClass(/is-done/);

    server = await serve(port);
    await expect(sheet.locator('[data-queue]')).toContainText('All is sent');
    await expect(sheet.locator('[data-refusals] li')).toHaveCount(0);
    await expect(async () => {
      await page.goto(`${desk}/work?day=${DAY}`);
      const [, done, all] = (await page.locator('h1').textContent()).match(/(\d+) of (\d+) tasks done/);
      expect(done).toBe(all);
    }).toPass();
  } finally {
    server.kill('SIGKILL');
    await phone.close();
  }
});

test('the week stands on one landscape page, and calendars are read by somebody else’s reader', async ({ page }) => {
  await page.goto(`${desk}/work/week?from=${DAY}`);
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
  expect(pdf.match(/\/Type\s*\/Page[^s]/g)).toHaveLength(1);
  const [, width, height] = pdf.match(/\/MediaBox\s*\[0 0 ([\d.]+) ([\d.]+)\]/);
  expect(Number(width)).toBeGreaterThan(Number(height));

  await page.goto(`${desk}/work/calendars`);
  await page.locator('form', { has: page.locator('[formaction*=withdrawSite]') }).or(page.locator('form[action*="handler=site"]')).getByRole('button').first().click();
  const address = (await page.locator('.pass-link').textContent()).trim();
  // Nobody is signed in who reads it.
  const answer = await fetch(address);
  expect(answer.headers.get('content-type')).toContain('text/calendar');
  const events = new ICAL.Component(ICAL.parse(await answer.text())).getAllSubcomponents('vevent').map((v) => new ICAL.Event(v));
  expect(new Set(events.map((e) => e.uid)).size).toBe(events.length);
  const summer = events.find((e) => e.uid.startsWith('turn-summer-2027'));
  expect(summer.startDate.isDate).toBe(true);
  expect(summer.startDate.toString()).toBe('2027-05-17');
  // The end of days without a time is the day after the last one.
  expect(summer.endDate.compare(summer.startDate)).toBeGreaterThan(0);
  // Who walks past all planters does so before the turn takes out what stood.
  const review = events.find((e) => e.uid.startsWith('review-summer-2027-end'));
  expect(review.startDate.compare(summer.startDate)).toBeLessThan(0);
  const work = events.find((e) => e.uid.startsWith(`work-${DAY}`));
  expect(work.summary).toContain('task');
  await page.getByRole('button', { name: 'Withdraw it' }).last().click();
  expect((await fetch(address)).status).toBe(404);
});

test('what is logged without signal waits, and is in the log once', async ({ page, browser }) => {
  test.setTimeout(90_000);
  const phone = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const sheet = await phone.newPage();
  await sheet.goto(`${desk}/signin`);
  await sheet.getByRole('button', { name: /Oona Brack/ }).click();
  await sheet.goto(`${desk}/today`);
  await held(sheet, `${desk}/log`);
  await phone.setOffline(true);
  await sheet.goto(`${desk}/log`);
  const note = `seen without signal ${Date.now()}`;
  const say = async (words, picture) => {
    if (picture) await sheet.locator('[name=Picture]').setInputFiles(picture);
    await sheet.locator('#planter').selectOption('great-pot');
    await sheet.locator('label[for=kind-Note]').click();
    await sheet.locator('[name=Note]').fill(words);
    await sheet.locator('main form[data-send-later] button.btn-ink').click();
  };
  // A photograph as a camera makes it is made small on the phone, and waits with its entry.
  await say(note, { name: 'pot.png', mimeType: 'image/png', buffer: await sheet.screenshot() });
  await expect(sheet.locator('[data-log-queue]')).toContainText('1 wait');
  // A note without words cannot be taken: it stays with the reason.
  await say('');
  await expect(sheet.locator('[data-log-queue]')).toContainText('2 wait');
  await sheet.reload();
  await expect(sheet.locator('[data-log-queue]')).toContainText('2 wait');
  await phone.setOffline(false);
  await expect(sheet.locator('[data-log-queue]')).toContainText('All is sent', { timeout: 20_000 });
  await expect(sheet.locator('[data-log-refusals] li')).toHaveCount(1);
  await sheet.locator('[data-log-refusals] button').click();
  await expect(sheet.locator('[data-log-refusals] li')).toHaveCount(0);
  // So does what a review walk finds.
  await held(sheet, `${desk}/review`);
  await phone.setOffline(true);
  await sheet.goto(`${desk}/review`);
  const pot = sheet.locator('#planter-great-pot');
  if (!(await pot.locator('form').isVisible())) await pot.locator('summary').click();
  await pot.getByText('good', { exact: true }).click();
  await pot.getByText('the same again', { exact: true }).click();
  await pot.locator('[name=Note]').fill('rated without signal');
  await pot.locator('button[type=submit]').click();
  await expect(sheet.locator('[data-log-queue]')).toContainText('1 wait');
  await phone.setOffline(false);
  await expect(sheet.locator('[data-log-queue]')).toContainText('All is sent', { timeout: 20_000 });
  await sheet.goto(`${desk}/review`);
  await expect(pot.locator('.found')).toContainText('4 of 5, the same again. rated without signal');
  // With signal it goes the usual way, once.
  await sheet.goto(`${desk}/log`);
  await say(`${note}, and with`);
  await expect(sheet.locator('.said')).toBeVisible();
  await phone.close();
  await page.goto(`${desk}/log?planter=great-pot`);
  await expect(page.locator('.history li', { hasText: note })).toHaveCount(2);
  await page.goto(`${desk}/planters/great-pot`);
  await expect(page.locator(`img[alt*="${note}"]`)).not.toHaveCount(0);
});
