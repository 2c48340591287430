import { demo, expect, test } from './site.js';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

test('a crew member reads the day sheet and logs what they see from a phone', async ({ page }) => {
  await page.goto(`${demo}/daysheet?turn=bulbs-2026`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Bulb planting');
  await expect(page.locator('.job:not(.everywhere)').first()).toContainText('base at');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);

  await page.goto(`${demo}/log?planter=shelter-pot-3`);
  await page.getByText('at its peak', { exact: true }).tap();
  await page.getByRole('button', { name: 'Log it' }).tap();
  await expect(page.getByRole('status')).toContainText('Logged: Shelter pot 3, at its peak');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);

  await page.goto(`${demo}/planters/shelter-pot-3`);
  await expect(page.locator('.history')).toContainText('at its peak');
  await expect(page.locator('.ribbon .seen')).not.toHaveCount(0);
});

test('a note without words is refused and keeps the rest', async ({ page }) => {
  await page.goto(`${demo}/log?planter=gate-pot-right`);
  await page.getByText('note', { exact: true }).tap();
  await page.getByRole('button', { name: 'Log it' }).tap();
  await expect(page.getByText('must not be empty for a note')).toBeVisible();
  await expect(page.getByRole('radio', { name: 'note', exact: true })).toBeChecked();
});
