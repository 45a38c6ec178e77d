import { publishDraft, restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { beginCampaign, launch, outline, saved, say, sentence, stage } from '../lib/workbench.ts';

test('J20 time, scroll or both; again the next day, but never after signing up', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  const cases = [
    { rule: 'after 18 seconds', byTime: true, byScroll: false },
    { rule: 'after 40 % of the page', byTime: false, byScroll: true },
    { rule: 'after 18 seconds or after 40 % of the page, the first of them', byTime: true, byScroll: true },
    { rule: 'after 18 seconds and after 40 % of the page, both', byTime: false, byScroll: false },
  ] as const;
  const arrive = async () => visit(await newVisitor(browser), `${velarium.fell}/journal/meteor-notebook`);
  const scrollDown = async (site: Awaited<ReturnType<typeof arrive>>) => {
    await site.page.mouse.move(600, 400);
    await site.page.mouse.wheel(0, 4000);
    await expect.poll(() => site.page.evaluate(() => scrollY)).toBeGreaterThan(500);
    await site.pass(0.5);
  };
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Either', /Corner invitation/);
  await say(page, 'everywhere, on every device, every time');
  for (const { rule, byTime, byScroll } of cases) {
    await say(page, rule);
    await saved(page);
    await publishDraft(velarium, page.url().split('/').at(-1) ?? '');
    const waiting = await arrive();
    await waiting.pass(18.5);
    await expect(waiting.message).toHaveCount(byTime ? 1 : 0);
    const reading = await arrive();
    await scrollDown(reading);
    await expect(reading.message).toHaveCount(byScroll ? 1 : 0);
    if (!byTime && !byScroll) {
      await scrollDown(waiting);
      await expect(waiting.message).toHaveCount(1);
    }
  }

  await restAll(velarium);
  await page.getByRole('link', { name: 'Board', exact: true }).first().click();
  await beginCampaign(page, velarium, 'Next day', /Sky letter/);
  await outline(page).getByRole('button', { name: /^Form/ }).click();
  await page.getByLabel('Words on the send button').fill('Write to me');
  await expect(stage(page, 'desktop').getByRole('button', { name: 'Write to me' })).toBeVisible();
  await say(page, 'at once, everywhere, on every device, once a day');
  await expect(sentence(page)).toContainText('after a conversion it never comes again');
  await launch(page);
  const site = await arrive();
  await site.pass(0.5);
  await site.page.getByRole('button', { name: 'Close' }).click();
  await site.sleep('23:00:00');
  await site.reload();
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
  // The cap lifts while the page is still open, so it opens there and then.
  await site.sleep('01:01:00');
  await site.pass(0.5);
  await expect(site.dialog).toBeVisible();
  await site.pass(4);
  await site.page.getByLabel('Your mail address').fill('lark@example.org');
  await site.page.getByRole('checkbox').check();
  await site.page.getByRole('button', { name: 'Write to me' }).click();
  await expect(site.dialog).toContainText('Clear skies');
  await site.sleep('49:00:00');
  await site.reload();
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
});
