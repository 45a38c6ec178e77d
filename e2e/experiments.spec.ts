import type { Manifest } from '@velarium/contract';
import { assign } from '@velarium/core';
import { expectAccessible } from './lib/accessibility.ts';
import { restAll } from './lib/api.ts';
import { expect, newVisitor, test, visit } from './lib/velarium.ts';
import { beginCampaign, launch, saved, say, side } from './lib/workbench.ts';

test('two moments are tried: each visitor meets their own, every time, and Results tell of both', async ({
  velarium,
  memberPage: page,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Later', /Sky letter/);
  await say(page, 'after 15 seconds, on /about, on every device, every time');
  await saved(page);
  await page.getByRole('link', { name: 'Board', exact: true }).first().click();
  await beginCampaign(page, velarium, 'Sooner', /Sky letter/);
  await say(page, 'after 5 seconds, on /about, on every device, every time');
  await side(page, 'Limits');
  await page.getByText('Experiment', { exact: true }).click();
  await page.getByRole('combobox', { name: /Try another campaign/ }).click();
  await page.getByRole('option', { name: 'Later' }).click();
  await expect(page.getByText(/opens after 15 seconds/)).toBeVisible();
  await expect(page.getByText(/It takes [\d,]+ visitors a variant/)).toBeVisible();
  // For a goal of the site, or for its own answer.
  const aim = page.getByRole('combobox', { name: 'Tried for' });
  await aim.click();
  const goal = page.getByRole('option', { name: /within \d+ days?$/ }).last();
  const named = (await goal.textContent()) ?? '';
  await goal.click();
  await expect(aim).toHaveText(named);
  await saved(page);
  await aim.click();
  await page.getByRole('option', { name: /^Its own answer/ }).click();
  await expectAccessible(page);
  await launch(page);

  const shown = () =>
    velarium.query(
      `SELECT visitor, coalesce(variant, 'a') AS variant FROM event
        WHERE kind = 'shown' AND campaign_id = (SELECT id FROM campaign WHERE name = 'Sooner')`,
      [],
    ) as Promise<{ visitor: string; variant: 'a' | 'b' }[]>;
  const manifest: Manifest = await (await fetch(`${velarium.edge}/tag/quillonfell2/manifest.json`)).json();
  const experiment = manifest.campaigns[0]?.experiment;
  if (!experiment) throw new Error('expected visitors to be divided');
  const met = { a: 0, b: 0 };
  // The draw is by chance: one of sixteen would be enough in all but three of a hundred thousand runs.
  for (let n = 0; n < 16 && (met.a === 0 || met.b === 0); n++) {
    const context = await newVisitor(browser);
    for (let visits = 0; visits < 2; visits++) {
      const site = await visit(context, `${velarium.fell}/about`);
      await site.pass(1);
      const visitor = await site.page.evaluate(
        () => /[0-9a-f]{32}/.exec(localStorage.getItem('velarium:quillonfell2') ?? '')?.[0] ?? '',
      );
      const variant = assign(visitor, experiment).variant?.id === 'b' ? 'b' : 'a';
      await site.pass(variant === 'a' ? 3 : 13);
      await expect(site.message).toHaveCount(0);
      await site.pass(1.5);
      await expect(site.dialog).toBeVisible();
      await site.settle();
      if (visits === 0) met[variant]++;
      await site.page.close();
    }
    await context.close();
  }
  expect(Math.min(met.a, met.b)).toBeGreaterThan(0);
  const found = await shown();
  expect(found).toHaveLength(2 * (met.a + met.b));
  // Whoever comes again meets the same.
  expect(new Set(found.map(({ visitor, variant }) => `${visitor} ${variant}`)).size).toBe(met.a + met.b);

  await page.getByRole('button', { name: 'Actions for Sooner' }).click();
  await page.getByRole('menuitem', { name: 'Results' }).click();
  await expect(
    page.getByText(/entered it; none counts yet, for each is waited for over 24 hours/),
  ).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'End it …' }).click();
  await page.getByRole('menuitem', { name: 'Stop it' }).click();
  await expect(page.getByText('Stopped. Everybody gets the present one.')).toBeVisible();
  await expect(page.getByText('Experiments that have ended')).toBeVisible();
});
