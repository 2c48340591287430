// The four sites that the browser tests walk through, and a page that fails the test on any console error.
import { test as base, expect } from '@playwright/test';

export const demo = `http://127.0.0.1:${process.env.MEADOW_DEMO_PORT}`;
/** A copy of the demo that tests may change. */
export const studio = `http://127.0.0.1:${process.env.MEADOW_STUDIO_PORT}`;
export const walk = `http://127.0.0.1:${process.env.MEADOW_WALK_PORT}`;
export const empty = `http://127.0.0.1:${process.env.MEADOW_EMPTY_PORT}`;

export const test = base.extend({
  page: async ({ page }, use) => {
    const errors = [];
    page.on('console', (message) => {
      if (message.type() === 'error') errors.push(message.text());
    });
    page.on('pageerror', (error) => errors.push(error.message));
    // A page that is still being reckoned opens by itself; what a test looks at is the page that it stands in for.
    const goto = page.goto.bind(page);
    page.goto = async (...where) => {
      const answer = await goto(...where);
      await page.waitForFunction(() => document.readyState === 'complete' && !document.querySelector('[data-reckoning]'));
      return answer;
    };
    await use(page);
    // A refused upload and a page that is not there say so with their status, which the browser logs too.
    expect(errors.filter((e) => !/status of 4\d\d/.test(e))).toEqual([]);
  },
});

export { expect };

/** Daily weather of a mild place as a plain CSV. */
export const weatherCsv = (years = 12) => {
  const rows = ['date,tmin,tmax'];
  for (let day = new Date(Date.UTC(2008, 0, 1)); day.getUTCFullYear() < 2008 + years; day = new Date(day.getTime() + 864e5)) {
    const n = (day - Date.UTC(day.getUTCFullYear(), 0, 1)) / 864e5;
    const mean = 10.5 - 10 * Math.cos((2 * Math.PI * (n - 25)) / 365.25) + (day.getUTCFullYear() % 4) - 1.5 + 3 * Math.sin(n * 1.7);
    rows.push(`${day.toISOString().slice(0, 10)},${(mean - 5).toFixed(1)},${(mean + 5).toFixed(1)}`);
  }
  return Buffer.from(rows.join('\n'));
};
