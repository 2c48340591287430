import { demo, expect, test } from './site.js';

const address = (page) => new URL(page.url()).searchParams.get('day');

test('keys move the day and the address follows', async ({ page }) => {
  await page.goto(`${demo}/year?day=2027-04-14`);
  const flag = page.locator('[data-thread-text]');
  await expect(flag).toHaveText('Wed 14 Apr');
  await page.keyboard.press(']');
  await expect(flag).toHaveText('Wed 21 Apr');
  await expect(page).toHaveURL(/day=2027-04-21/);
  await page.keyboard.press('{');
  await expect(page).toHaveURL(/day=2027-03-21/);
  await page.keyboard.press('[');
  await expect(page).toHaveURL(/day=2027-03-14/);
  await page.getByRole('slider', { name: 'The day' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('slider', { name: 'The day' })).toHaveAttribute('aria-valuetext', /Mon 15 Mar: \d+ of 24 in colour/);
  await page.reload();
  await expect(flag).toHaveText('Mon 15 Mar');
});

test('a month back from the year’s edge opens the year before', async ({ page }) => {
  await page.goto(`${demo}/year?day=2026-09-03`);
  await page.keyboard.press('[');
  await expect(page).toHaveURL(/day=2026-08-27/);
  await expect(page.locator('.month').first()).toHaveText('Sep');
  await expect(page.locator('[data-day-marker]')).toHaveAttribute('data-start', '2025-09-01');
});

test('the mouse drags the red thread', async ({ page }) => {
  await page.goto(`${demo}/year?day=2027-04-14`);
  await expect(page.locator('[data-thread-text]')).toHaveText('Wed 14 Apr');
  const box = await page.locator('[data-thread-grab]').boundingBox();
  const at = (share) => [box.x + box.width * share, box.y + 40];
  await page.mouse.move(...at(0.2));
  await page.mouse.down();
  await page.mouse.move(...at(0.35), { steps: 4 });
  await page.mouse.up();
  await expect.poll(() => address(page)).toMatch(/^2027-01-0[3-9]$/);
  await expect(page.locator('.row-rule.is-bare')).not.toHaveCount(0);
});

test('bare planters are named in words as well as marked', async ({ page }) => {
  await page.goto(`${demo}/year?day=2027-01-20`);
  await expect(page.locator('[data-on-day]')).toHaveText('21 of 24 in colour');
  await expect(page.locator('.is-bare .who')).toHaveCount(3);
});

test('a figure opens its working and Escape closes it', async ({ page }) => {
  await page.goto(`${demo}/year?day=2027-04-14`);
  const summary = page.locator('.row-rule summary').first();
  await summary.focus();
  await page.keyboard.press('Enter');
  await expect(page.locator('details.working[open] .sheet')).toContainText('weather years');
  await page.keyboard.press('Escape');
  await expect(page.locator('details.working[open]')).toHaveCount(0);
  await expect(summary).toBeFocused();
});

test('one past year’s weather can be laid over the plan', async ({ page }) => {
  await page.goto(`${demo}/year?day=2027-04-14`);
  await page.getByLabel('weather').selectOption('2010');
  await expect(page).toHaveURL(/weather=2010/);
  expect(address(page)).toBe('2027-04-14');
  await page.goBack();
  await expect(page.getByLabel('weather')).toHaveValue('');
});

test('the day moves the drawing of a stack', async ({ page }) => {
  await page.goto(`${demo}/stack/bollard-pot-north?day=2027-01-10`);
  const petals = page.locator('.cutaway .petal');
  const before = await petals.count();
  for (let month = 0; month < 3; month++) await page.keyboard.press('}');
  await expect(page.locator('.cutaway title').first()).toContainText('10 Apr');
  await expect.poll(() => petals.count()).toBeGreaterThan(before);
});

test('the list of keys opens by ? and names them', async ({ page }) => {
  await page.goto(`${demo}/climate`);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('the day a week back or on');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('an upload over 20 MB is named before it is sent', async ({ page }) => {
  await page.goto(`${demo}/climate/stations`);
  await page.getByLabel('File', { exact: true }).setInputFiles({ name: 'huge.csv', mimeType: 'text/csv', buffer: Buffer.alloc(21 * 1024 * 1024, 55) });
  expect(await page.getByLabel('File', { exact: true }).evaluate((field) => field.validationMessage)).toContain('larger than 20 MB');
});

test('every day sheet of the demo prints on one portrait page', async ({ page }) => {
  for (const turn of ['fall-2026', 'bulbs-2026', 'winter-2026', 'summer-2027']) {
    await page.goto(`${demo}/daysheet?turn=${turn}`);
    const days = await page.getByRole('navigation', { name: 'Days of the turn' }).locator('a[href*="date="]').evaluateAll((links) => links.map((a) => a.href));
    for (const day of days) {
      await page.goto(day);
      const pdf = await page.pdf({ format: 'A4' });
      expect(pdf.toString('latin1').match(/\/Type\s*\/Page[^s]/g).length, day).toBe(1);
    }
  }
});
