// Work is given at the desk and done in the yard: without signal from the second stop on, with the app killed and the phone empty in between.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
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
    await expect(sheet.locator('.stop')).toHaveCount(2);
    expect(await sheet.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await sheet.waitForFunction(async () => {
      const held = await caches.open('meadow-pages-1');
      return Boolean(await held.match(location.href)) && Boolean(navigator.serviceWorker.controller);
    });
    const first = sheet.locator('.stop').nth(0);
    await first.locator('.tick').first().click();
    await expect(sheet.locator('[data-queue]')).toContainText('All is sent');

    // No signal from the second stop on.
    await phone.setOffline(true);
    const second = sheet.locator('.stop').nth(1);
    for (const tick of await second.locator('.tick').all()) await tick.click();
    const goesIn = second.locator('.goes-in').first();
    const count = Number(await goesIn.getAttribute('data-count'));
    await goesIn.locator('[data-step="-1"]').click();
    await goesIn.locator('[data-short-choice]').selectOption('Missing');
    // Every tick, the step back and the reason wait by themselves.
    const waiting = `${(await second.locator('.tick').count()) + 2} wait to be sent`;
    await expect(sheet.locator('[data-queue]')).toHaveText(waiting);
    // The battery is empty; switched on again, still without signal, the sheet opens with all that was ticked.
    await phone.close();
    ({ phone, page: sheet } = await switchOn(folder, cookies));
    await phone.setOffline(true);
    await sheet.goto(`${desk}/today?day=${day}`);
    await expect(sheet.locator('[data-queue]')).toHaveText(waiting);
    await expect(sheet.locator('.stop').nth(1).locator('.goes-in output').first()).toHaveText(String(count - 1));
    await expect(sheet.locator('.stop').nth(1)).toHaveClass(/is-done/);

    // The clock is an hour wrong when the signal is back.
    await sheet.evaluate(() => {
      const now = Date.now;
      Date.now = () => now() - 3_600_000;
    });
    await phone.setOffline(false);
    const left = sheet.locator('.stop').nth(0);
    for (const tick of (await left.locator('.tick[aria-pressed=false]').all()).reverse()) await tick.click();
    await expect(sheet.locator('[data-queue]')).toContainText('All is sent');
    await expect(sheet.locator('[data-refusals] li')).toHaveCount(0);
    await phone.close();

    await page.goto(`${desk}/work?day=${day}`);
    await expect(page.locator('h1')).toContainText('2 of 2 tasks done');
    await expect(page.locator('.came-back li', { hasText: places[1] })).toContainText(`${count - 1} of ${count}`);
    await page.locator('.came-back li', { hasText: places[1] }).getByRole('button', { name: 'Leave it so' }).click();
    await expect(page.locator('.came-back')).toHaveCount(0);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
