import { changeSettings, publish } from './lib/api.ts';
import { expect, test, visit } from './lib/velarium.ts';

/** What the page heard, in order: the events on its document, and what was put into its array. */
const heard = () =>
  (window as unknown as { heard: string[]; siteEvents?: { event: string }[] }).heard.concat(
    ((window as unknown as { siteEvents?: { event: string }[] }).siteEvents ?? []).map(({ event }) => event),
  );
const listen = () => {
  const all: string[] = [];
  Object.assign(window, { heard: all });
  for (const deed of ['shown', 'viewable', 'clicked', 'closed', 'converted', 'refused'])
    document.addEventListener(`velarium:${deed}`, () => all.push(deed));
};

test('the page hears what messages do where its owner says so, and only of those who agreed', async ({
  velarium,
  visitor,
}) => {
  await publish(velarium, { triggers: [{ kind: 'time', seconds: 1 }] });
  await visitor.addInitScript(listen);
  const site = await visit(visitor, `${velarium.fell}/about`);
  const meet = async () => {
    await site.go(`${velarium.fell}/about`);
    await site.pass(1.5);
    await expect(site.message).toHaveCount(1);
    await site.pass(1.5);
    await site.page.getByRole('button', { name: 'Close' }).click();
    await expect(site.message).toHaveCount(0);
    return site.page.evaluate(heard);
  };
  expect(await meet()).toEqual([]);

  await changeSettings(velarium, { measuring: { array: 'siteEvents' } });
  expect(await meet()).toEqual([
    'shown',
    'viewable',
    'closed',
    'velarium_shown',
    'velarium_viewable',
    'velarium_closed',
  ]);

  await changeSettings(velarium, { privacy: { memory: 'asked', honoursSignal: true } });
  await visitor.clearCookies();
  await site.page.evaluate(() => localStorage.clear());
  expect(await meet()).toEqual([]);
  expect(site.problems).toEqual([]);
});
