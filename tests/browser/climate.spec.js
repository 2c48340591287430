import { demo, expect, test } from './site.js';

test('the weather on top is changed by a choice and the drawing follows', async ({ page }) => {
  await page.goto(`${demo}/climate/ground`);
  await page.getByLabel('On top').selectOption('hardest');
  await expect(page).toHaveURL(/weather=hardest/);
  await expect(page.locator('.climate-figure .year-line')).toHaveCount(1);
  await expect(page.getByText('the hardest winter', { exact: false }).first()).toBeVisible();
  await page.getByLabel('On top').selectOption('typical');
  await expect(page).toHaveURL(/weather=typical/);
  await expect(page.locator('.climate-figure .year-line')).toHaveCount(0);
  await page.goBack();
  await expect(page.locator('.climate-figure .year-line')).toHaveCount(1);
});

test('every figure of the ground opens its working', async ({ page }) => {
  await page.goto(`${demo}/climate/ground?where=pot&width=40&wall=Terracotta`);
  const marks = page.locator('.figure-row details.working');
  expect(await marks.count()).toBeGreaterThan(3);
  const roots = marks.filter({ hasText: 'Roots live through a winter' });
  await expect(roots).toHaveCount(1);
  await roots.locator('summary').click();
  await expect(roots.locator('.sheet')).toBeVisible();
  await expect(roots.locator('.sheet')).toContainText('Normal distribution');
});

test('walls and trees are dragged over the sky and the hours of sun follow', async ({ page }) => {
  await page.goto(`${demo}/planters/kiosk-basket/sun`);
  const sky = page.locator('[data-sky]');
  await sky.scrollIntoViewIfNeeded();
  const box = await sky.boundingBox();
  const place = async () => {
    const now = await sky.boundingBox();
    return { x: now.x + now.width / 2, y: now.y + now.height / 2 };
  };
  const middle = await place();
  const r = (Math.min(box.width, box.height) / 580) * 250;
  const at = (azimuth, altitude) => ({
    x: middle.x + ((r * (90 - altitude)) / 90) * Math.sin((azimuth * Math.PI) / 180),
    y: middle.y - ((r * (90 - altitude)) / 90) * Math.cos((azimuth * Math.PI) / 180),
  });
  // From south-east over south to south-west at 70 degrees: a wall that takes most of the sun.
  const start = at(112, 70);
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  for (let azimuth = 112; azimuth <= 248; azimuth += 4) {
    const to = at(azimuth, 70);
    await page.mouse.move(to.x, to.y);
  }
  await page.mouse.up();
  const south = Number(await page.getByLabel('walls towards S, degrees', { exact: true }).inputValue());
  expect(south).toBeGreaterThan(66);
  expect(south).toBeLessThan(74);
  await expect(page.locator('[data-preview="hours"]')).toContainText('winter 0.0 h (shade)');
  await expect(page.locator('[data-sky-wall="8"]')).toHaveAttribute('d', /^M/);

  await page.getByLabel('trees', { exact: true }).check();
  // The page may have scrolled to what was ticked.
  await sky.scrollIntoViewIfNeeded();
  Object.assign(middle, await place());
  const east = at(90, 40);
  await page.mouse.click(east.x, east.y);
  expect(Number(await page.getByLabel('trees towards E, degrees', { exact: true }).inputValue())).toBeGreaterThan(35);
  await page.getByLabel('walls towards N, degrees', { exact: true }).fill('tall');
  await expect(page.locator('[data-preview="hours"]')).toContainText('must be numbers');
});
