import { readFileSync } from 'node:fs';
import { empty, expect, test, weatherCsv } from './site.js';

test('a planner goes from an empty site to a printed day sheet', async ({ page }) => {
  await page.goto(`${empty}/year`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('No planters yet');

  await page.getByRole('link', { name: 'Begin', exact: true }).click();
  await page.getByRole('link', { name: 'Bring in a station' }).click();
  await page.getByLabel('File', { exact: true }).setInputFiles({ name: 'hill.csv', mimeType: 'text/csv', buffer: weatherCsv() });
  await page.getByLabel('Station’s name').fill('Hill station');
  await page.getByLabel('Identifier').fill('HILL');
  await page.getByLabel('Latitude, ° north', { exact: true }).fill('44');
  await page.getByLabel('Longitude, ° east', { exact: true }).fill('-63');
  await page.getByRole('button', { name: 'Bring in' }).click();
  await expect(page.getByRole('status')).toContainText('4,383 days read');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Plant at 18 cm in the bed under thin litter from');
  await page.getByRole('link', { name: 'Air and frost' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Frost all-clear on');

  await page.goto(`${empty}/palette`);
  await page.getByRole('button', { name: 'Add the starter palette' }).click();
  await expect(page.getByRole('status')).toContainText('plants added');

  await page.goto(`${empty}/planters`);
  await page.getByRole('link', { name: 'Add a planter' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Court pot');
  await page.getByLabel('Area', { exact: true }).fill('Court');
  await page.getByLabel('Diameter or length at the rim').fill('60');
  await page.getByLabel('Diameter or length at the floor').fill('44');
  await page.getByLabel('Depth, rim to floor').fill('0');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('must be from 10 cm to 200 cm')).toBeVisible();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Court pot');
  await page.waitForLoadState();
  await page.getByLabel('Depth, rim to floor').fill('50');
  await expect(page.locator('[data-preview="volume"]')).toContainText('100 L');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Court pot');

  await page.getByRole('link', { name: 'Bulb stack', exact: true }).click();
  await page.getByLabel('Planted').fill('2026-10-20');
  await page.getByLabel('Lifted or cleared').fill('2027-05-17');
  await page.locator('[name="Input.Lines[0].PlantId"]').selectOption('tulip-mid-red');
  await page.getByLabel('Count', { exact: true }).fill('900');
  await expect(page.locator('[data-preview="cutaway"]')).toContainText('900 planned');
  await page.getByLabel('Count', { exact: true }).fill('11');
  await expect(page.locator('[data-preview="figures"]')).toContainText('11 of');
  await page.getByRole('button', { name: 'Add a line' }).click();
  await page.locator('[name="Input.Lines[1].PlantId"]').selectOption('crocus-early-violet');
  await page.locator('[name="Input.Lines[1].Count"]').fill('30');
  await expect(page.locator('[data-preview="cutaway"]')).toContainText('broken, ');
  await page.getByRole('button', { name: 'Save the stack' }).click();
  await expect(page.getByRole('status')).toContainText('saved');

  await page.getByRole('link', { name: 'Court pot' }).first().click();
  await page.getByRole('link', { name: 'New display', exact: true }).click();
  await page.getByLabel('Goes in').fill('2027-05-17');
  await page.getByLabel('Comes out').fill('2027-09-27');
  await page.locator('[name="Input.Lines[0].PlantId"]').selectOption('petunia-magenta');
  await page.locator('[name="Input.Lines[0].Count"]').fill('7');
  await expect(page.locator('[data-preview="remarks"]')).toContainText('would cover');
  await page.getByRole('button', { name: 'Plant it' }).dblclick();
  await expect(page.getByRole('status')).toContainText('is saved');
  await expect(page.locator('table.ledger tbody tr')).toHaveCount(2);

  await page.goto(`${empty}/turns`);
  await page.getByRole('link', { name: 'Add a turn' }).click();
  await page.getByLabel('Name').fill('Summer turn');
  await page.getByLabel('First day').fill('2027-05-17');
  await page.getByLabel('Last day').fill('2027-05-21');
  await page.getByRole('button', { name: 'Save' }).click();

  await page.getByRole('link', { name: 'what to order' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Summer turn');
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'This list as CSV' }).click()]);
  expect(readFileSync(await download.path(), 'utf8')).toContain('Petunia, magenta');

  await page.getByRole('link', { name: 'Day sheets' }).click();
  await expect(page.locator('.job')).toContainText('11 Tulip, mid red');
  await expect(page.locator('.job')).toContainText('7 Petunia, magenta');
  const pdf = await page.pdf({ format: 'A4' });
  expect(pdf.toString('latin1').match(/\/Type\s*\/Page[^s]/g)).toHaveLength(1);
});
