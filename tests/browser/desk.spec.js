import { desk, expect, fresh, test } from './site.js';

// Clicks and typed fields, as a planner makes them.
const counting = (page) => {
  const made = { clicks: 0, fields: 0 };
  return {
    made,
    click: async (what, options) => {
      made.clicks++;
      await what.click(options);
    },
    fill: async (what, text) => {
      made.fields++;
      await what.fill(text);
    },
    choose: async (what, value) => {
      made.fields++;
      await what.selectOption(value);
    },
    page,
  };
};

const done = (page) => expect(page.getByRole('button', { name: 'Do it to the ticked planters' })).toBeVisible({ timeout: 60_000 });

const takeBack = async (page, what) => {
  await page.goto(`${desk}/changes`);
  await page.getByRole('button', { name: /^Take back: / }).and(page.getByRole('button', { name: what })).first().click();
  await expect(page.locator('.said').first()).toContainText('Taken back');
};

test('anything is found from anywhere with a slash, by keys alone', async ({ page }) => {
  await page.goto(`${desk}/climate`);
  await page.keyboard.press('/');
  await page.keyboard.type('flag');
  await expect(page.locator('[data-finder] .hits a').first()).toContainText('Flag pot');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/planters\/flag-pot$/);
  await page.keyboard.press('/');
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-finder]')).not.toBeVisible();
});

test('a plant is found by words and put in by keys alone', async ({ page }) => {
  await page.goto(`${desk}/displays/new?planter=flag-pot`);
  await page.getByLabel('Goes in').fill('2029-05-17');
  await page.getByLabel('Comes out').fill('2029-09-27');
  await page.locator('.ts-control input').first().focus();
  await page.keyboard.type('petunia mag');
  await expect(page.locator('.plant-option').first()).toContainText('Petunia, magenta');
  await expect(page.locator('.plant-option svg.flowering').first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.locator('[name="Input.Lines[0].PlantId"]')).toHaveValue('petunia-magenta');
  await page.getByRole('button', { name: 'Add a line' }).click();
  await page.keyboard.type('sedge');
  await expect(page.locator('.plant-option:visible').first()).toContainText('Sedge');
  await page.keyboard.press('Enter');
  await expect(page.locator('select[data-plant-choice]').last()).toHaveValue(/sedge/);
});

test('an area is planted as the year before in five clicks', async ({ page }) => {
  await page.goto(`${desk}/year?day=2027-10-10`);
  const by = counting(page);
  await by.click(page.getByLabel('Choose all of Ferry Steps'));
  await by.click(page.getByRole('button', { name: 'same as the year before' }));
  await by.click(page.getByRole('button', { name: 'Show what it would do' }));
  await done(page);
  await by.click(page.getByRole('button', { name: 'Do it to the ticked planters' }));
  await expect(page.locator('.said').first()).toContainText('same as the year before');
  expect(by.made).toEqual({ clicks: 4, fields: 0 });
  await takeBack(page, /same as the year before/i);
});

test('a recipe goes into planters chosen with Shift, and one kind into all in place of another', async ({ page }) => {
  await page.goto(`${desk}/year?day=2027-09-10`);
  const recipe = counting(page);
  const boxes = page.locator('.rows input[name="planters[]"]');
  await recipe.click(boxes.nth(0));
  await recipe.click(boxes.nth(9), { modifiers: ['Shift'] });
  await recipe.click(page.getByRole('button', { name: 'plant a recipe' }));
  await recipe.choose(page.locator('select[name="Recipe"]'), { index: 1 });
  await recipe.fill(page.getByLabel('Goes in, where'), '2027-10-10');
  await recipe.fill(page.getByLabel('Comes out'), '2028-05-10');
  await recipe.click(page.getByRole('button', { name: 'Show what it would do' }));
  await expect(page.locator('.act-list tbody tr')).toHaveCount(10, { timeout: 60_000 });
  expect(recipe.made).toEqual({ clicks: 4, fields: 3 });

  await page.goto(`${desk}/year/act?kind=ReplaceKind&day=2027-05-17`);
  const kind = counting(page);
  await kind.click(page.getByRole('button', { name: 'tick all that are shown' }));
  await kind.choose(page.getByLabel('The kind that goes'), 'petunia-magenta');
  await kind.choose(page.locator('select[name="NewPlant"]'), 'petunia-salmon');
  await kind.click(page.getByRole('button', { name: 'Show what it would do' }));
  await done(page);
  expect(kind.made).toEqual({ clicks: 2, fields: 2 });
});

test('a whole year for one planter is proposed and planned in four clicks, and taken back', async ({ page }) => {
  await page.goto(`${desk}/year?day=2028-09-10`);
  const by = counting(page);
  await by.click(page.locator('.rows input[name="planters[]"]').first());
  await by.click(page.locator('[data-choice]').getByRole('button', { name: 'Propose a year' }));
  await by.click(page.getByRole('button', { name: 'Propose a year' }));
  await expect(page.locator('[data-job-done]')).toBeAttached({ timeout: 120_000 });
  await expect(page.locator('.year-card').first()).toContainText('days in colour');
  await by.click(page.getByRole('button', { name: /^Plan the/ }));
  await expect(page.locator('.said').first()).toContainText('can be taken back as one');
  expect(by.made).toEqual({ clicks: 4, fields: 0 });
  await takeBack(page, /year proposed/i);
});

test('thirty different planters are pasted in two clicks and taken back as one', async ({ page }) => {
  await page.goto(`${desk}/planters/table`);
  const by = counting(page);
  const shapes = ['round', 'box', 'bowl'];
  const rows = Array.from({ length: 30 }, (_, i) => `Pasted ${i}\tPasted area\t${shapes[i % 3]}\t${40 + i}\t${30 + i}\t${35 + (i % 5)}`).join('\n');
  await by.fill(page.getByLabel('Rows'), rows);
  await by.click(page.getByRole('button', { name: 'Look at them' }));
  await expect(page.locator('h1')).toContainText('30 planters would be added');
  await by.click(page.getByRole('button', { name: 'Take all of it' }));
  await expect(page.locator('.said').first()).toContainText('30 planters added');
  expect(by.made).toEqual({ clicks: 2, fields: 1 });
  await takeBack(page, /30 planters/i);
});

test('a new site has its planters planned, ordered for and on a day sheet in eight clicks and four fields', async ({ page }) => {
  await page.goto(fresh);
  const by = counting(page);
  await by.fill(page.getByLabel('Name of the site'), 'Hill park');
  await by.choose(page.getByLabel('Its climate is like'), 'Boston');
  await by.click(page.getByRole('button', { name: 'Use this climate' }));
  await expect(page.locator('h1')).toContainText('what do you have to plant');
  await by.fill(page.getByLabel('Say it as you would'), '6 pots of fifty');
  await page.getByRole('button', { name: 'Look at them' }).click();
  await expect(page.locator('.fault').first()).toContainText('no size is said');
  await by.fill(page.getByLabel('Say it as you would'), '3 pots of 50 cm\na trough 100 x 40 x 40 cm in part sun at the gate');
  await by.click(page.getByRole('button', { name: 'Look at them' }));
  await expect(page.locator('h1')).toContainText('4 planters would be added');
  await by.click(page.getByRole('button', { name: 'Take all of it' }));
  await by.click(page.getByRole('button', { name: 'Propose a year' }));
  await expect(page.locator('[data-job-done]')).toBeAttached({ timeout: 120_000 });
  await expect(page.getByRole('checkbox', { name: 'Pot 2' }).last()).toBeChecked();
  await by.click(page.getByRole('button', { name: /^Plan the/ }));
  await expect(page.locator('.said').first()).toContainText('in 4 planters');
  await page.goto(`${fresh}/begin`);
  await by.click(page.getByRole('link', { name: 'What to order' }));
  await expect(page.locator('h1')).toContainText(/[1-9]\d* plants/);
  await page.goBack();
  await by.click(page.getByRole('link', { name: /^The day sheet of/ }));
  await expect(page.locator('main')).toContainText(/Pot [123]|Trough 1/);
  expect(by.made).toEqual({ clicks: 7, fields: 4 });
});

test('the end of a display is dragged along its rule, or stepped by keys, seen at once, done and taken back', async ({ page }) => {
  await page.goto(`${desk}/year?day=2027-05-10`);
  const row = page.locator('.row-rule', { hasText: 'Bollard pot, south' }).first();
  const handle = row.locator('.display-end[data-end="Lift"]').first();
  const was = await handle.getAttribute('aria-valuetext');
  const box = await handle.locator('.hit').boundingBox();
  await page.mouse.move(box.x + 6, box.y + 12);
  await page.mouse.down();
  await page.mouse.move(box.x + 50, box.y + 12, { steps: 5 });
  await page.mouse.up();
  await expect(row.locator('.end-told')).toContainText(/days? later/);
  await expect(row.locator('.end-told')).toContainText('days in colour');
  await row.getByRole('button', { name: 'Leave it' }).click();
  await expect(row.locator('.end-told')).toHaveCount(0);
  await expect(handle).toHaveAttribute('aria-valuetext', was);
  await handle.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(row.locator('.end-told')).toContainText('2 days later');
  await page.keyboard.press('Enter');
  await expect(page.locator('.said-undo, .rows').first()).toBeVisible();
  await takeBack(page, /comes out on/);
});

test('a list is put in order by its headings and narrowed by words, and is found so again', async ({ page }) => {
  await page.goto(`${desk}/review/season`);
  const table = page.locator('table[data-order="season-planters"]');
  const shown = table.locator('tbody tr:visible');
  await expect(shown).not.toHaveCount(0, { timeout: 60_000 });
  const all = await shown.count();
  await table.getByRole('button', { name: 'cost' }).click();
  await expect(table.locator('th[aria-sort=descending]')).toHaveText('cost');
  const costs = (await table.locator('tbody tr td:nth-child(8)').allTextContents()).map((c) => Number(c.replace(/[^\d.]/g, '')));
  expect(costs).toEqual([...costs].sort((a, b) => b - a));
  await page.getByPlaceholder('find a planter').fill('gate pot');
  await expect(shown).toHaveCount(2);
  await page.reload();
  await expect(table.locator('th[aria-sort=descending]')).toHaveText('cost');
  await expect(shown).toHaveCount(2);
  await page.getByPlaceholder('find a planter').fill('');
  await table.getByRole('button', { name: 'cost' }).click();
  await table.getByRole('button', { name: 'cost' }).click();
  await expect(table.locator('th[aria-sort]')).toHaveCount(0);
  await expect(shown).toHaveCount(all);
});
