import { restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { beginCampaign, expectParts, launch, outline, say, sentence, stage } from '../lib/workbench.ts';

test('J06 sharing at the end of an article or after 25 s, beside a modal on leaving that it never meets', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Share', /Pass it on/);
  await outline(page)
    .getByRole('button', { name: /^Ways to share/ })
    .click();
  await page.getByRole('radio', { name: 'Square' }).check();
  await expect(stage(page, 'desktop').locator('.share')).toHaveAttribute('data-shape', 'square');
  await say(
    page,
    'at the end of the article, after 25 seconds or on leaving, on articles, not on phones, once every 10 days',
  );
  await expect(sentence(page)).toContainText('only on pages of the kind “article”');
  await launch(page);
  await beginCampaign(page, velarium, 'Leaving', /Before you go/);
  await say(page, 'on leaving, on articles, only on desktops, once per session');
  await launch(page);

  const context = await newVisitor(browser);
  const site = await visit(context, `${velarium.fell}/journal/finding-saturn`);
  await site.pass(24);
  await expect(site.message).toHaveCount(0);
  await site.pass(1.5);
  await expect(site.message).toHaveCount(1);
  await expect(site.message.getByText('Pass it on')).toBeVisible();
  await expect(site.message.getByText(/Passed on/)).toBeHidden();
  await site.page.mouse.move(600, 300);
  await site.page.mouse.move(600, 4, { steps: 4 });
  await site.pass(2);
  // Two that would lie on one another wait for each other.
  await expect(site.message).toHaveCount(1);
  await site.message.getByRole('button', { name: 'Close' }).click();
  await site.pass(1);
  await expect(site.dialog).toBeVisible();
  await expect(site.message).toHaveCount(1);
  await site.settle();
  await context.close();

  const other = await visit(await newVisitor(browser), `${velarium.fell}/about`);
  await other.pass(30);
  await expect(other.message).toHaveCount(0);

  // Look what 5 against 25 seconds did.
  await page.getByRole('link', { name: 'Share', exact: true }).click();
  await say(page, 'at the end of the article, after 5 seconds or on leaving');
  await launch(page);
  const sooner = await newVisitor(browser);
  const quick = await visit(sooner, `${velarium.fell}/journal/finding-saturn`);
  await quick.pass(2);
  await quick.shows(0);
  await quick.pass(3.5);
  await quick.shows(1);
  await quick.settle();
  await sooner.close();

  await expectParts(page, 'Share', 'Version', [
    ['version 1', 1, 0],
    ['version 2', 1, 0],
  ]);
  for (const [by, part] of [
    ['Page', '/journal/finding-saturn'],
    ['Trigger', 'time on the page'],
  ] as const) {
    await page.getByRole('combobox', { name: /told apart/ }).click();
    await page.getByRole('option', { name: by, exact: true }).click();
    await expect(
      page
        .getByRole('row', { name: new RegExp(`^${part}`) })
        .getByRole('cell')
        .first(),
    ).toHaveText('2');
  }
  await expect(page.getByText('How it went away')).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'By its close button' })).toContainText('1');
});
