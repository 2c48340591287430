import { check } from '@placemarkio/check-geojson';
import { demo, expect, test, walk, weatherCsv } from './site.js';

// The first planter of a site names its area; later ones choose it.
const nameArea = async (page) => {
  const area = page.getByLabel('Area', { exact: true });
  if (await area.evaluate((e) => e.tagName === 'INPUT')) await area.fill('Sundial court');
};

test('the red thread paints the map anew for every day', async ({ page }) => {
  await page.goto(`${demo}/grounds?day=2027-04-14`);
  await expect(page.locator('[data-grounds][data-ready]')).toBeVisible();
  const south = page.locator('[data-planter="south-bed"]');
  await page.keyboard.press('{');
  await page.keyboard.press('{');
  await page.keyboard.press('{');
  await expect(page).toHaveURL(/day=2027-01-14/);
  await expect(south).toHaveClass(/is-bare/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('South bed');
  for (let i = 0; i < 6; i++) await page.keyboard.press('}');
  await expect(page).toHaveURL(/day=2027-07-14/);
  await expect(south).toHaveClass(/is-colour/);
  const painted = await south.locator('.tint').first().getAttribute('fill');
  await page.reload();
  await expect(south.locator('.tint').first()).toHaveAttribute('fill', painted);
});

test('the map is moved and zoomed by keys and its bar keeps the scale', async ({ page }) => {
  await page.goto(`${demo}/grounds?day=2027-04-14`);
  const map = page.locator('[data-grounds-map]');
  const box = async () => (await map.getAttribute('viewBox')).split(' ').map(Number);
  const before = await box();
  await map.focus();
  await page.keyboard.press('+');
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await box())[2]).toBeLessThan(before[2]);
  const after = await box();
  expect(after[2]).toBeLessThan(before[2]);
  expect(after[0]).toBeGreaterThan(before[0]);
  const bar = await page.locator('[data-scale-line]').evaluate((e) => e.getBoundingClientRect().width);
  const metres = parseFloat(await page.locator('[data-scale-text]').textContent());
  const size = await map.evaluate((e) => ({ w: e.getBoundingClientRect().width, h: e.getBoundingClientRect().height }));
  const perPixel = Math.max(after[2] / size.w, after[3] / size.h);
  expect(Math.abs(bar * perPixel - metres)).toBeLessThan(metres * 0.03);
  await page.keyboard.press('0');
  expect(await box()).toEqual(before);
});

test('a planter on the map is clicked through to its page on that day', async ({ page }) => {
  await page.goto(`${demo}/grounds?day=2027-04-14`);
  await page.locator('[data-planter="north-bed"] .soil').click();
  await expect(page).toHaveURL(/\/planters\/north-bed\?day=2027-04-14/);
});

test('an independent reader takes the map file as valid GeoJSON', async ({ request }) => {
  const text = await (await request.get(`${demo}/grounds?handler=geojson`)).text();
  const map = check(text);
  expect(map.features.length).toBeGreaterThan(40);
  expect(new Set(map.features.map((f) => f.geometry.type))).toEqual(new Set(['Point', 'LineString', 'Polygon']));
});

test('a bed drawn on the map goes on to its survey and is saved with its area', async ({ page }) => {
  await page.goto(`${walk}/grounds?draw=bed`);
  const map = page.locator('[data-grounds-map]');
  await map.scrollIntoViewIfNeeded();
  const size = await map.boundingBox();
  for (const [x, y] of [[0.45, 0.3], [0.5, 0.3], [0.5, 0.42], [0.45, 0.42]]) await page.mouse.click(size.x + size.width * x, size.y + size.height * y);
  await expect(page.locator('[data-draw-said]')).toContainText('4 corners');
  const area = parseFloat((await page.locator('[data-draw-said]').textContent()).match(/([\d.]+) m²/)[1]);
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page).toHaveURL(/\/planters\/new\?corners=/);
  await page.getByLabel('Name', { exact: true }).fill('Drawn bed');
  await nameArea(page);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Drawn bed');
  expect(Math.abs(parseFloat((await page.locator('.facts').textContent()).match(/bed ([\d.]+) m²/)[1]) - area)).toBeLessThan(0.3);
});

test('the palette answers while one types, and Back leaves it', async ({ page }) => {
  await page.goto(`${demo}/site`);
  await page.goto(`${demo}/palette`);
  await page.locator('#q').pressSequentially('witch');
  await expect(page.locator('.palette-list tbody tr')).toHaveCount(2);
  await expect(page).toHaveURL(/q=witch/);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('2 plants for “witch”');
  await page.goBack();
  await expect(page).toHaveURL(/\/site/);
});

test('from an empty site to what would give colour in the third week of February', async ({ page, request }) => {
  await page.goto(`${walk}/palette/import`);
  const sheet = await (await request.get(`${demo}/palette?handler=csv`)).body();
  await page.getByLabel('A sheet, CSV in UTF-8').setInputFiles({ name: 'palette.csv', mimeType: 'text/csv', buffer: sheet });
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('palette.csv');
  if (await page.getByRole('button', { name: 'Take all of it' }).count()) await page.getByRole('button', { name: 'Take all of it' }).click();

  await page.goto(`${walk}/climate/stations`);
  if (!(await page.getByText('Windy Corner').count())) {
    await page.locator('input[type="file"]').first().setInputFiles({ name: 'w.csv', mimeType: 'text/csv', buffer: weatherCsv() });
    await page.locator('[name="StationName"]').fill('Windy Corner');
    await page.locator('[name="StationId"]').fill('WINDY');
    await page.locator('[name="Latitude"]').fill('45');
    await page.locator('[name="Longitude"]').fill('0');
    await page.locator('form:has(input[type="file"]) button').first().click();
  }
  for (const [shape, name] of [['round pot', 'Dial pot'], ['half-barrel', 'Dial barrel'], ['bowl', 'Dial bowl']]) {
    await page.goto(`${walk}/planters/new`);
    await page.getByLabel('Name', { exact: true }).fill(name);
    await nameArea(page);
    await page.getByLabel('Shape').selectOption({ label: shape });
    await page.getByLabel('Diameter or length at the rim').fill('70');
    await page.getByLabel('Diameter or length at the floor').fill('45');
    await page.getByLabel('Depth, rim to floor').fill('45');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(name);
  }
  await page.goto(`${walk}/palette?planter=dial-barrel&from=2027-02-15&to=2027-02-21`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Dial barrel');
  expect(await page.locator('.verdict.is-fits').count()).toBeGreaterThan(5);
  await page.getByRole('link', { name: /Show all/ }).click();
  await expect(page.locator('.reasons .is-fails').first()).not.toBeEmpty();
});
