// From the plan to plants in the holding area: what the supply pages are for, as a planner and a crew member walk through them.
import { test, expect, desk } from './site.js';

test('a planner sends three orders, they are received on a phone with two faults and a substitution, and the pages agree', async ({ page }) => {
  test.setTimeout(180_000);
  await page.goto(`${desk}/supply/basket?turn=summer-2027`);
  const find = page.getByRole('button', { name: 'Find the cheapest' });
  await find.click();
  await expect(page.getByRole('button', { name: 'Draft these orders' })).toBeVisible({ timeout: 60_000 });
  // The planner decides a line, and the basket is found anew around it. What is chosen goes off by itself once scripts run.
  await page.waitForLoadState();
  const instead = page.locator('tbody select').first();
  const chosen = await instead.locator('option').last().getAttribute('value');
  const before = page.url();
  await instead.selectOption(chosen);
  await page.waitForURL((url) => url.href !== before);
  await expect(instead).toHaveValue(chosen);
  await expect(page.locator('tbody tr').first()).toContainText(chosen.split('|')[1]);
  await expect(page.getByRole('button', { name: 'Draft these orders' })).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Draft these orders' }).click();
  await expect(page.locator('.said')).toContainText('drafted');
  await page.goto(`${desk}/supply/basket?turn=spring-2027`);
  await page.getByRole('button', { name: 'Find the cheapest' }).click();
  await page.getByRole('button', { name: 'Draft these orders' }).click({ timeout: 60_000 });
  await expect(page.locator('.said')).toContainText('drafted');

  const drafts = await page.locator('tbody a', { hasText: 'Draft' }).evaluateAll((links) => links.map((a) => a.href));
  expect(drafts.length).toBeGreaterThanOrEqual(3);
  let largest = { packs: 0 };
  for (const draft of drafts) {
    await page.goto(draft);
    await page.getByRole('button', { name: 'Count it as sent' }).click();
    await expect(page.locator('h1')).toContainText('sent');
    const lines = await page.locator('tbody tr').count();
    if (lines > largest.packs) largest = { packs: lines, at: draft };
  }

  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${largest.at}/receive`);
  await page.getByRole('button', { name: 'All of it came and is good' }).click();
  const lines = page.locator('.deliveries > li');
  await lines.nth(0).getByLabel('Taken').fill('1');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(lines.nth(0).locator('.fault')).toContainText('say why');
  await lines.nth(0).getByLabel('Refused because').selectOption('Dry');
  await lines.nth(1).locator('summary').click();
  await lines.nth(1).getByLabel('Taken').fill('0');
  await lines.nth(1).getByLabel('Refused because').selectOption('Foliage');
  await lines.nth(2).locator('summary').click();
  await lines.nth(2).locator('.ts-control').click();
  await page.keyboard.type('pansy, yel');
  await page.getByRole('option', { name: /Pansy, yellow/ }).first().click();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.locator('.said')).toContainText('taken into the stock');
  await expect(page.locator('h2', { hasText: 'Credits' })).toContainText('settled');

  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole('link', { name: 'See what it does in the displays' }).click();
  await expect(page.locator('h1')).toBeVisible();
  await page.goto(`${desk}/supply/holding`);
  await expect(page.locator('h1')).toContainText('plants wait');
  await expect(page.locator('.date-rules')).toContainText('Pansy, yellow');
  // Another day of the weeks to come, with the night that is to be reckoned with.
  const later = new Date(Date.now() + 42 * 86_400_000).toISOString().slice(0, 10);
  await page.getByLabel('What it needs on').fill(later);
  await page.waitForURL(/day=/);
  await expect(page.locator('main')).toContainText('low of one night in ten');
  await page.goto(`${desk}/supply/money`);
  await expect(page.locator('tbody tr', { hasText: 'Summer turn' })).toContainText('$');
});
