import AxeBuilder from '@axe-core/playwright';
import { HtmlValidate } from 'html-validate';
import { demo, empty, expect, test } from './site.js';

// Nothing is changed here: both workers share the pages.
test.describe.configure({ mode: 'parallel' });

const views = [
  '/year?day=2027-04-14', '/planters', '/planters/bollard-pot-north?day=2027-04-14', '/planters/new', '/stack/bollard-pot-north', '/stack/bollard-pot-north/template', '/stack/wall-pot-west/build', '/arrange/shelter-pot-1-summer-2027', '/rules', '/recipes?recipe=five-layers', '/displays/flag-pot-summer-2027',
  '/year?beside=LateSpring', '/year/close?asked=true&planter=kiosk-basket', '/year/rehearse?kind=HalfCrew', '/year/events', '/year/sequence?day=2027-04-10', '/year/ahead?years=3', '/turns', '/turns/bulbs-2026/spread', '/turns/summer-2027', '/year/act?kind=ReplaceKind&planterList=great-pot&day=2027-05-17', '/year/propose?planterList=great-pot&day=2027-09-01', '/find?q=pot', '/changes', '/supply?turn=summer-2027', '/supply/basket?turn=summer-2027', '/supply/orders', '/supply/orders/019a0000-0000-7000-8000-0000000000a1', '/supply/orders/019a0000-0000-7000-8000-0000000000a2/receive', '/supply/suppliers', '/supply/suppliers/quillon-bulbs', '/supply/holding', '/supply/materials', '/supply/money', '/daysheet?turn=bulbs-2026', '/work?day=2027-05-17', '/work/labour', '/work/schedule?from=2027-05-10', '/work/roster', '/work/route?day=2027-05-17', '/work/week?from=2027-05-17', '/work/calendars', '/today', '/care', '/review', '/review/season', '/learnt', '/trials', '/planters/labels', '/log?planter=kiosk-basket', '/climate', '/climate/ground?weather=past',
  '/climate/stations', '/planters/great-pot/sun', '/palette', '/palette?planter=flag-pot&from=2027-02-15', '/palette/snowdrop', '/palette/snowdrop/edit', '/palette/import', '/palette/compare?compare[]=snowdrop&compare[]=canna-red',
  '/grounds?day=2027-04-14', '/stock', '/site', '/site/aside', '/nowhere',
];
const validator = new HtmlValidate({
  extends: ['html-validate:recommended'],
  rules: { 'no-trailing-whitespace': 'off', 'void-style': 'off', 'attribute-boolean-style': 'off', 'attribute-empty-style': 'off', 'long-title': 'off', 'no-implicit-button-type': 'off' },
});

// What axe says of a page, without another window for the sum of its frames: there are none.
const grave = async (page, tags) => {
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'] });
  const { violations } = await (tags ? axe.withTags(tags) : axe).analyze();
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes.slice(0, 3).map((n) => n.html.slice(0, 140)).join(' | ')}`);
};

for (const path of views) {
  test(`${path} fits the window, is valid HTML and has nothing that axe calls serious`, async ({ page }) => {
    await page.goto(demo + path);
    // Long work is over, and the page does not read itself anew any more.
    await expect(page.locator('[data-job], [data-ask-at-once]')).toHaveCount(0, { timeout: 60_000 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1280);
    for (const details of await page.locator('details.working').all().then((all) => all.slice(0, 1))) await details.evaluate((d) => { d.open = true; });
    expect(await grave(page, ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])).toEqual([]);

    const html = await (await page.context().request.get(demo + path)).text();
    const report = await validator.validateString(html);
    const faults = report.results.flatMap((r) => r.messages).map((m) => `${m.line}:${m.column} ${m.ruleId} ${m.message}`);
    expect(faults.slice(0, 8)).toEqual([]);
  });
}

for (const path of ['/year', '/year/close', '/year/rehearse', '/year/events', '/year/sequence', '/year/ahead', '/turns', '/grounds', '/palette', '/planters', '/log', '/climate', '/climate/ground', '/climate/stations', '/site']) {
  test(`${path} of an empty site has nothing that axe calls serious`, async ({ page }) => {
    await page.goto(empty + path);
    await expect(page.locator('[data-job], [data-ask-at-once]')).toHaveCount(0, { timeout: 60_000 });
    expect(await grave(page)).toEqual([]);
  });
}
