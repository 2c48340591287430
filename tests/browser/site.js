// The six sites that the browser tests walk through, and a page that fails the test on any console error.
import { test as base, expect } from '@playwright/test';

export const demo = `http://127.0.0.1:${process.env.MEADOW_DEMO_PORT}`;
/** A copy of the demo that tests may change. */
export const studio = `http://127.0.0.1:${process.env.MEADOW_STUDIO_PORT}`;
/** Another, for those who plan many planters at once, order, give work and receive. */
export const desk = `http://127.0.0.1:${process.env.MEADOW_DESK_PORT}`;
export const walk = `http://127.0.0.1:${process.env.MEADOW_WALK_PORT}`;
/** A new site, with the palette and the recipes that ship with the app. */
export const fresh = `http://127.0.0.1:${process.env.MEADOW_NEW_PORT}`;
export const empty = `http://127.0.0.1:${process.env.MEADOW_EMPTY_PORT}`;

/** Signs a browser's requests in, as one of those who may most. */
const tapIn = async (request, origin, owner = 0) => {
  const page = await (await request.get(`${origin}/signin`)).text();
  const owners = [...page.matchAll(/<button[^>]*name="person" value="([^"]+)"[^>]*>([^]*?)<\/button>/g)].filter(([, , said]) => said.includes('owner'));
  const [, person] = owners[owner % owners.length];
  const [, token] = page.match(/name="__RequestVerificationToken" type="hidden" value="([^"]+)"/);
  await request.post(`${origin}/signin?handler=tap`, { form: { person, __RequestVerificationToken: token } });
};

// The cookies of those who are signed in, by site, for all tests of this worker.
const signedIn = new Map();

export const test = base.extend({
  // What is asked for without a page is asked by somebody who is signed in, too.
  request: async ({ request }, use) => {
    const known = new Set();
    await use({
      get: async (url, options) => {
        const { origin } = new URL(url);
        if (!known.has(origin)) await tapIn(request, origin);
        known.add(origin);
        return request.get(url, options);
      },
    });
  },
  page: async ({ page }, use, info) => {
    const errors = [];
    page.on('console', (message) => {
      if (message.type() === 'error') errors.push(message.text());
    });
    page.on('pageerror', (error) => errors.push(error.message));
    // A page that is still being reckoned opens by itself; what a test looks at is the page that it stands in for.
    const goto = page.goto.bind(page);
    page.goto = async (...where) => {
      const { origin } = new URL(where[0]);
      if (page.url().startsWith('http')) await settled(page, 10_000).catch(() => {});
      if (signedIn.has(origin) && !page.url().startsWith('http') && !where[0].includes('/signin')) await page.context().addCookies(signedIn.get(origin));
      let answer = await goto(...where);
      // Whoever is not signed in yet signs in, and comes to the page that was asked for. Tests side by side are owners each for
      // themselves: one person waits for one answer at a time.
      if (new URL(page.url()).pathname === '/signin' && !String(where[0]).includes('/signin')) {
        await tapIn(page.context().request, origin, info.parallelIndex % 2);
        signedIn.set(origin, await page.context().cookies(origin));
        answer = await goto(...where);
      }
      await settled(page);
      return answer;
    };
    await use(page);
    // A refused upload and a page that is not there say so with their status, which the browser logs too.
    expect(errors.filter((e) => !/status of 4\d\d/.test(e))).toEqual([]);
  },
});

export { expect };

/** A page that is still being reckoned opens by itself, and would do so in the midst of whatever is asked for next. */
export const settled = (page, timeout) =>
  page.waitForFunction(() => document.readyState === 'complete' && !document.querySelector('[data-reckoning]'), null, { timeout });

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
