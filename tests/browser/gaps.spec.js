import { demo, empty, expect, studio, test } from './site.js';

const bare = async (page) => Number(/(\d+) planter-days\. Close/.exec(await page.locator('.under').innerText())[1]);

test('a planner sees the weeks at risk, has them closed, accepts three, sees the rules mend and takes it back', async ({ page }) => {
  await page.goto(`${studio}/year`);
  const before = await bare(page);
  await page.getByRole('link', { name: 'Close them…' }).click();
  await page.getByRole('button', { name: 'Find what would close them' }).click();
  // The work goes on beside the page, which shows its result by itself.
  const takes = page.getByRole('checkbox', { name: /planter|pot|trough|basket|bed/i }).and(page.locator('[name="take[]"]'));
  await expect(takes.first()).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole('button', { name: 'Make the ticked changes' })).toBeVisible({ timeout: 30_000 });
  // What is found first is shown at once; the page is read anew when the work is over.
  await expect(page.locator('[data-job]')).toHaveCount(0, { timeout: 60_000 });
  const count = await takes.count();
  expect(count).toBeGreaterThanOrEqual(5);
  for (let i = 3; i < count; i++) await takes.nth(i).uncheck();
  await page.locator('.gap-item').first().getByLabel(/How this was worked out/).click();
  await expect(page.locator('.gap-item details[open] .sheet')).toContainText('bare before');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Make the ticked changes' }).click();
  await expect(page.locator('.said, [role="status"]').first()).toContainText(`3 of ${count} changes made`);
  expect(await bare(page)).toBeLessThan(before - 100);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect.poll(() => bare(page)).toBe(before);
});

test('the hardest winter is rehearsed on the same rules, with what is lost and what would save it', async ({ page }) => {
  await page.goto(`${demo}/year?day=2027-01-20`);
  await page.getByLabel('rehearse or compare').selectOption({ label: 'the hardest winter on record' });
  await expect(page.locator('.rehearsed')).toContainText('The winter of');
  await expect(page.locator('path.planned')).toHaveCount(24);
  await page.getByRole('link', { name: 'What is lost and what would save it' }).click();
  await expect(page.locator('.sums')).toContainText('days that covers would save', { timeout: 30_000 });
});

test('weather is chosen by name and the address keeps it', async ({ page }) => {
  await page.goto(`${demo}/year`);
  await page.getByLabel('weather', { exact: true }).selectOption('typical');
  await expect(page).toHaveURL(/weather=typical/);
  await expect(page.locator('.spell').first()).not.toContainText('in 10');
});

for (const [name, path] of [['the year as it is', '/year'], ['a rehearsal', '/year?beside=LateSpring']]) {
  test(`${name} prints on one landscape page`, async ({ page }) => {
    await page.goto(demo + path);
    // Before printing, the page gives each rule its share of the height.
    await page.evaluate(() => window.dispatchEvent(new Event('beforeprint')));
    const pdf = (await page.pdf({ preferCSSPageSize: true, printBackground: true })).toString('latin1');
    expect(pdf.match(/\/Type\s*\/Page\b(?!s)/g)).toHaveLength(1);
    const [, width, height] = /\/MediaBox\s*\[\s*0 0 ([\d.]+) ([\d.]+)/.exec(pdf).map(Number);
    expect(width).toBeGreaterThan(height);
  });
}

test('leaving while the work goes on loses nothing, and asking twice is one work', async ({ page, context }) => {
  await page.goto(`${demo}/year/close?area=harbour-garden`);
  await page.getByRole('button', { name: 'Find what would close them' }).click();
  await page.waitForURL(/asked=true/);
  const path = page.url();
  await page.close();
  const again = await context.newPage();
  await again.goto(path);
  await expect(again.getByRole('button', { name: 'Make the ticked changes' })).toBeVisible({ timeout: 30_000 });
  const job = await again.locator('input[name="job"]').inputValue();
  await again.goBack().catch(() => {});
  await again.goto(path);
  expect(await again.locator('input[name="job"]').inputValue()).toBe(job);
});

test('an empty site says what to do first on every page of the year', async ({ page }) => {
  await page.goto(`${empty}/year/rehearse`);
  await expect(page.locator('main')).toContainText('No planters yet');
  await page.goto(`${empty}/year/close`);
  await expect(page.locator('h1')).toContainText('Nothing is bare that could still be closed');
});

test('a turn shows its window and moves with its displays', async ({ page }) => {
  await page.goto(`${studio}/turns/winter-2026`);
  await expect(page.locator('.turn-curve')).toBeVisible({ timeout: 30_000 });
  await expect(page.locator('h1')).toContainText('planter-days');
});

test('bulbs are seen through spring, and the red thread moves over them', async ({ page }) => {
  await page.goto(`${demo}/year?day=2027-04-10`);
  await page.getByRole('link', { name: 'Bulbs through spring' }).click();
  await page.waitForURL(/sequence\?day=2027-04-10/);
  await expect(page.locator('svg.sequence')).toHaveCount(4);
  await page.waitForLoadState();
  await page.keyboard.press(']');
  await expect(page).toHaveURL(/day=2027-04-17/);
  await page.getByRole('link', { name: 'Spread its bulbs…' }).first().click();
  await expect(page.locator('#found h2')).toContainText('Nothing to exchange', { timeout: 30_000 });
});

test('the years ahead are computed, the next is written into the plan and taken back', async ({ page }) => {
  await page.goto(`${studio}/year/ahead?years=3`);
  await expect(page.locator('h1')).toContainText('3 years for $', { timeout: 30_000 });
  // The page is read anew once the years are computed: choices answer when its scripts are there again.
  await page.waitForLoadState();
  await page.getByLabel('tulips and what else dwindles').selectOption('LiftEachYear');
  await expect(page).toHaveURL(/tulips=LiftEachYear/);
  await page.getByRole('button', { name: /Write \d+ displays of 2027–28 into the plan/ }).click({ timeout: 30_000 });
  await expect(page.locator('.said, [role="status"]').first()).toContainText('displays are planned for 2027–28');
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.locator('.said').first()).toContainText('Taken back');
  await page.goto(`${studio}/year/ahead?years=3`);
  await expect(page.getByRole('button', { name: /Write \d+ displays of 2027–28/ })).toBeVisible({ timeout: 30_000 });
});
