import jsQR from 'jsqr';
import { expect, settled, studio, test } from './site.js';

// The studio's people, changed and put back by each test itself.
const localhost = studio.replace('127.0.0.1', 'localhost');

test('a phone is signed in by the square that a lead shows, once, and at that site alone', async ({ page, browser }) => {
  await page.goto(`${studio}/people`);
  const row = page.getByRole('row', { name: /Jory Tamsel/ });
  await row.getByRole('button', { name: 'sign a phone in' }).click();
  const square = page.locator('.pass-square svg');
  await expect(square).toBeVisible();
  const picture = await square.screenshot();
  const read = await page.evaluate(async (bytes) => {
    const image = await createImageBitmap(new Blob([new Uint8Array(bytes)], { type: 'image/png' }));
    const canvas = new OffscreenCanvas(image.width, image.height);
    const context = canvas.getContext('2d');
    context.drawImage(image, 0, 0);
    const { data, width, height } = context.getImageData(0, 0, image.width, image.height);
    return { data: [...data], width, height };
  }, [...picture]);
  const link = jsQR(Uint8ClampedArray.from(read.data), read.width, read.height).data;
  expect(link).toBe(await page.locator('.pass-link').textContent());
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true })).newPage();
  await phone.goto(link);
  await phone.getByRole('button', { name: 'Yes, I am Jory Tamsel' }).tap();
  await expect(phone.locator('.person')).toContainText('Jory Tamsel');
  await settled(phone);
  await phone.goto(`${studio}/me`);
  await expect(phone.getByText('was signed in for you at one site')).toBeVisible();
  // The same square is worth nothing now.
  const other = await (await browser.newContext()).newPage();
  await other.goto(link);
  await expect(other.getByRole('heading', { level: 1 })).toHaveText('This code is no longer good');
});

test('a passkey is added and signs in without a password', async ({ page }) => {
  await page.goto(`${localhost}/me`);
  const session = await page.context().newCDPSession(page);
  await session.send('WebAuthn.enable');
  await session.send('WebAuthn.addVirtualAuthenticator', {
    options: { protocol: 'ctap2', transport: 'internal', hasResidentKey: true, hasUserVerification: true, isUserVerified: true, automaticPresenceSimulation: true },
  });
  await page.getByRole('button', { name: 'Add a passkey of this device' }).click();
  await expect(page.locator('.said')).toContainText('The passkey is added');
  const name = await page.getByRole('heading', { level: 1 }).textContent();
  await page.getByRole('button', { name: 'sign out' }).click();
  await page.getByRole('button', { name: 'Sign in with a passkey' }).click();
  await expect(page.locator('.person')).toContainText(name);
  await page.goto(`${localhost}/me`);
  await page.getByRole('button', { name: 'take it away' }).first().click();
  await expect(page.locator('.said')).toContainText('taken away');
});

test('somebody is invited by a link, joins with a password, and is let in again by it and by nothing else', async ({ page, browser }) => {
  await page.goto(`${studio}/people`);
  await page.locator('#invite-role').selectOption('Planner');
  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = await page.locator('.pass-link').textContent();
  const theirs = await (await browser.newContext()).newPage();
  await theirs.goto(link);
  await expect(theirs.getByRole('heading', { level: 1 })).toHaveText('You are invited to Kittiwake Quay');
  await theirs.getByLabel('Your name, as others see it').fill('Lotte Wren');
  await theirs.getByLabel('Name to sign in under').fill('lotte');
  await theirs.getByLabel('Password, ten characters or more').fill('short');
  await theirs.getByRole('button', { name: 'Join' }).click();
  await expect(theirs.locator('.fault').first()).toContainText('10');
  await expect(theirs.getByLabel('Name to sign in under')).toHaveValue('lotte');
  await theirs.getByLabel('Password, ten characters or more').fill('meadow rain 47');
  await theirs.getByRole('button', { name: 'Join' }).click();
  await expect(theirs.locator('.person')).toContainText('Lotte Wren');
  await theirs.getByRole('button', { name: 'sign out' }).click();
  await theirs.getByLabel('Name', { exact: true }).fill('lotte');
  await theirs.getByLabel('Password', { exact: true }).fill('meadow rain 48');
  await theirs.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(theirs.locator('.fault, [role="alert"]').first()).toContainText('Nobody signs in under that name');
  await theirs.getByLabel('Password', { exact: true }).fill('meadow rain 47');
  await theirs.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(theirs.locator('.person')).toContainText('Lotte Wren');
  // Taken off the site, she is out at her next step.
  await page.goto(`${studio}/people`);
  await page.getByRole('row', { name: /Lotte Wren/ }).getByRole('button', { name: 'take off the site' }).click();
  await expect(page.locator('.said')).toContainText('no longer belongs');
  await theirs.goto(`${studio}/year`);
  await expect(theirs.getByRole('heading', { level: 1 })).toHaveText('You belong to no site');
});

test('a guest reads the year and is offered nothing to change it by', async ({ browser }) => {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(`${studio}/signin`);
  await page.getByRole('button', { name: /A visitor/ }).click();
  await page.goto(`${studio}/year`);
  await expect(page.locator('.rows .row, .rows > *').first()).toBeVisible();
  await expect(page.getByRole('link', { name: 'Close bare spells' })).toHaveCount(0);
  await page.goto(`${studio}/planters/flag-pot`);
  await expect(page.getByRole('link', { name: 'Survey' })).toHaveCount(0);
  const answer = await page.goto(`${studio}/planters/flag-pot/edit`);
  expect(answer.status()).toBe(403);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('That is not yours to do');
});
