// Signs in with a tap, as the sign-in page offers it on the app's own machine.
const plain = globalThis.fetch;
const cookies = (answer) => answer.headers.getSetCookie().map((c) => c.split(';')[0]);

/** From here on every question goes with the session of somebody who may everything. */
export const signIn = async (site) => {
  const page = await plain(`${site}/signin`);
  const html = await page.text();
  const form = cookies(page);
  const answer = await plain(`${site}/signin?handler=tap`, {
    method: 'POST',
    redirect: 'manual',
    headers: { cookie: form.join('; ') },
    body: new URLSearchParams({ person: /name="person" value="([^"]+)"/.exec(html)[1], __RequestVerificationToken: /name="__RequestVerificationToken" type="hidden" value="([^"]+)"/.exec(html)[1] }),
  });
  const session = cookies(answer).find((c) => c.startsWith('meadow-session'));
  if (!session) throw new Error(`nobody could be signed in: ${answer.status}`);
  globalThis.fetch = (address, options = {}) => plain(address, { ...options, headers: { 'accept-language': 'en', ...options.headers, cookie: [session, options.headers?.cookie].filter(Boolean).join('; ') } });
};

/** The same in a browser's page. */
export const tapIn = async (page, site) => {
  await page.goto(`${site}/signin`);
  await page.locator('button.tap').first().click();
  await page.waitForURL((address) => address.pathname !== '/signin');
};
