import { publish, restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';

/** The rule is set through the API: scroll depth and joining have no control in the interface yet. */
test('J20 time, scroll or both; again the next day, but never after signing up', async ({
  velarium,
  browser,
}) => {
  const time = { kind: 'time', seconds: 18 } as const;
  const scroll = { kind: 'scroll', unit: 'percent', amount: 40 } as const;
  const cases = [
    { triggers: [time], join: 'any', byTime: true, byScroll: false },
    { triggers: [scroll], join: 'any', byTime: false, byScroll: true },
    { triggers: [time, scroll], join: 'any', byTime: true, byScroll: true },
    { triggers: [time, scroll], join: 'all', byTime: false, byScroll: false },
  ] as const;
  const arrive = async () => visit(await newVisitor(browser), `${velarium.fell}/journal/meteor-notebook`);
  const scrollDown = async (site: Awaited<ReturnType<typeof arrive>>) => {
    await site.page.mouse.move(600, 400);
    await site.page.mouse.wheel(0, 4000);
    await expect.poll(() => site.page.evaluate(() => scrollY)).toBeGreaterThan(500);
    await site.pass(0.5);
  };
  for (const { triggers, join, byTime, byScroll } of cases) {
    await restAll(velarium);
    await publish(velarium, { triggers, moment: { join } });
    const waiting = await arrive();
    await waiting.pass(18.5);
    await expect(waiting.message).toHaveCount(byTime ? 1 : 0);
    const reading = await arrive();
    await scrollDown(reading);
    await expect(reading.message).toHaveCount(byScroll ? 1 : 0);
    if (join === 'all') {
      await scrollDown(waiting);
      await expect(waiting.message).toHaveCount(1);
    }
  }

  await restAll(velarium);
  await publish(velarium, {
    template: 'sky-letter',
    triggers: [{ kind: 'time', seconds: 0 }],
    limits: { caps: [{ max: 1, per: { count: 1, unit: 'days' } }], afterConversion: 'ever' },
  });
  const site = await arrive();
  await site.pass(0.3);
  await site.page.getByRole('button', { name: 'Close' }).click();
  await site.page.clock.fastForward('23:00:00');
  await site.reload();
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
  // The cap lifts while the page is still open, so it opens there and then.
  await site.page.clock.fastForward('01:01:00');
  await site.pass(0.3);
  await expect(site.dialog).toBeVisible();
  await site.page.getByLabel('Your mail address').fill('lark@example.org');
  await site.page.getByRole('checkbox').check();
  await site.page.getByRole('button', { name: 'Send me the sky' }).click();
  await expect(site.dialog).toContainText('Clear skies');
  await site.page.clock.fastForward('49:00:00');
  await site.reload();
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
});
