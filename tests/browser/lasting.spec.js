import { demo, expect, studio, test } from './site.js';

test('two people edit one planter, and the second compares before hers is saved', async ({ page, context }) => {
  await page.goto(`${studio}/planters/flag-pot/edit`);
  const other = await context.newPage();
  await other.goto(`${studio}/planters/flag-pot/edit`);
  await other.getByLabel('Note').fill('moved to the quay');
  await other.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(other).toHaveURL(/\/planters\/flag-pot$/);
  // The page is read anew once its remarks are looked over; what it said stays.
  await expect(other.locator('[data-job]')).toHaveCount(0);
  await expect(other.locator('.said')).toContainText('saved');
  await page.getByLabel('Note').fill('needs a new saucer');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  const differences = page.locator('table.differences');
  await expect(differences).toContainText('needs a new saucer');
  await expect(differences).toContainText('moved to the quay');
  await expect(page.getByLabel('Note')).toHaveValue('needs a new saucer');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page).toHaveURL(/\/planters\/flag-pot$/);
});

test('ticks among many planters are sent as one field and the Back button sends them again', async ({ page }) => {
  await page.goto(`${studio}/turns/new`);
  await page.getByLabel('Name').fill('Many ticks');
  await page.getByLabel('First day').fill('2029-09-15');
  await page.getByLabel('Last day').fill('2029-09-17');
  await page.getByRole('button', { name: /Save|Add/ }).click();
  await expect(page).toHaveURL(/many-ticks-2029/);
  await page.getByRole('link', { name: 'plant many planters' }).click();
  await expect(page.getByRole('button', { name: 'tick all that are shown' })).toBeVisible();
  const boxes = page.locator('input[name="planters[]"]');
  const count = await boxes.count();
  expect(count).toBeGreaterThan(3);
  await page.getByRole('button', { name: 'tick all that are shown' }).click();
  const sent = page.waitForRequest((r) => r.method() === 'POST');
  await page.getByRole('button', { name: 'Show what it would do' }).click();
  const body = new URLSearchParams((await sent).postData());
  expect(body.get('planterList').split(' ')).toHaveLength(count);
  expect(body.getAll('planters[]')).toEqual([]);
  // Nothing was chosen to go in: the page comes back with all that was ticked.
  await expect(page.locator('.fault').first()).toContainText('choose one');
  await expect(page.locator('input[name="planters[]"]:checked')).toHaveCount(count);
});

test('a page that is not there is said plainly', async ({ page }) => {
  await page.goto(`${demo}/year`);
  const answer = await page.goto(`${demo}/nowhere`);
  expect(answer.status()).toBe(404);
  await expect(page.locator('h1')).toHaveText('There is no such page');
  await page.getByRole('link', { name: 'Back to the year' }).click();
  await expect(page).toHaveURL(/\/year/);
});

test('what is typed stays when long work ends, and its result is a link away', async ({ page }) => {
  await page.goto(`${demo}/turns/summer-2027`);
  await expect(page.locator('[data-job], [data-ask-at-once]')).toHaveCount(0, { timeout: 60_000 });
  await page.getByLabel('Name', { exact: true }).fill('Summer, as typed');
  await page.evaluate(async () => (await import('/js/read-anew.js')).readAnew());
  await expect(page.locator('[data-there]')).toContainText('What you typed is not saved yet');
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Summer, as typed');
  await page.getByRole('link', { name: 'Show it' }).click();
  await expect(page.getByLabel('Name', { exact: true })).not.toHaveValue('Summer, as typed');
});

test('whoever has gone to another page gets there though long work ends meanwhile', async ({ page }) => {
  await page.goto(`${demo}/turns/summer-2027`);
  await expect(page.locator('[data-job], [data-ask-at-once]')).toHaveCount(0, { timeout: 60_000 });
  await page.route('**/supply?**', async (route) => {
    await new Promise((done) => setTimeout(done, 1500));
    await route.continue();
  });
  await page.evaluate(() => import('/js/read-anew.js').then((module) => void setTimeout(module.readAnew, 700)));
  await page.getByRole('link', { name: 'what to order' }).click();
  await expect(page).toHaveURL(/\/supply\?turn=summer-2027/);
});
