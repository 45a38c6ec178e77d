import { changeSettings, publish, restAll } from './lib/api.ts';
import { serveForeign } from './lib/foreign.ts';
import { expect, test, visit } from './lib/velarium.ts';

test.beforeEach(({ velarium }) => restAll(velarium));

test('a page and a frame of its own are one visitor with one message', async ({ velarium, visitor }) => {
  await publish(velarium, { template: 'sky-letter', triggers: [{ kind: 'time', seconds: 1 }] });
  await serveForeign(visitor, velarium);
  const site = await visit(visitor, `${velarium.fell}/pages/framed`);
  const frame = site.page.frameLocator('iframe');
  await expect(frame.getByRole('heading', { name: 'A long read' })).toBeAttached();
  await site.pass(3);
  await expect(site.message).toHaveCount(1);
  await expect(frame.locator('velarium-message')).toHaveCount(0);
});

test('where the site lets messages open in its own frames, page and frame stand under one floor', async ({
  velarium,
  visitor,
}) => {
  const at = (path: string) => ({
    pages: { include: [{ kind: 'exact' as const, address: path }], exclude: [], follows: null },
  });
  await changeSettings(velarium, { worksInFrames: true });
  const waits = { whenBusy: 'wait' as const };
  await publish(velarium, {
    template: 'sky-letter',
    triggers: [{ kind: 'time', seconds: 1 }],
    reach: at('/pages/framed'),
    limits: waits,
  });
  await publish(velarium, {
    template: 'sky-letter',
    triggers: [{ kind: 'time', seconds: 2 }],
    reach: at('/pages/article'),
    limits: waits,
  });
  await serveForeign(visitor, velarium);
  const site = await visit(visitor, `${velarium.fell}/pages/framed`);
  const inside = site.page.frameLocator('iframe').locator('velarium-message');
  await site.pass(1.5);
  await site.shows(1);
  await site.pass(10);
  await site.shows(1);
  await expect(inside).toHaveCount(0);
  // The one goes, and the floor is free for the other.
  await site.page.keyboard.press('Escape');
  await expect
    .poll(async () => {
      await site.pass(0.5);
      return inside.count();
    })
    .toBe(1);
  await expect(site.message).toHaveCount(0);
  // A frame that goes gives back what it held.
  await site.page.evaluate(() => {
    history.pushState(null, '', '/pages/other');
    history.pushState(null, '', '/pages/framed');
  });
  await site.pass(3);
  await site.shows(0);
  await site.page.evaluate(() => document.querySelector('iframe')?.remove());
  await site.page.evaluate(() => {
    history.pushState(null, '', '/pages/other');
    history.pushState(null, '', '/pages/framed');
  });
  await expect
    .poll(async () => {
      await site.pass(0.5);
      return site.message.count();
    })
    .toBe(1);
});

test("in a page of somebody else's the tag works in its frame, in one from another address of the site it rests", async ({
  velarium,
  visitor,
}) => {
  await publish(velarium, { template: 'sky-letter', triggers: [{ kind: 'time', seconds: 1 }] });
  await serveForeign(visitor, velarium);
  const around = `<!doctype html><title>Around</title><iframe title="Inside" src="${velarium.fell}/pages/article" width="600" height="400"></iframe>`;
  const addresses = [
    [`${velarium.skerry}/around`, false],
    [`${velarium.skerry.replace('127.0.0.1', 'localhost')}/around`, true],
  ] as const;
  for (const [address, isWorking] of addresses) {
    await visitor.route(address, (route) => route.fulfill({ contentType: 'text/html', body: around }));
    const page = await visitor.newPage();
    const decided = page.waitForResponse(/\/within-/);
    await page.goto(address);
    await decided;
    // Whatever the tag would fetch and send once it has decided has come to its end.
    await page.waitForLoadState('networkidle');
    const inside = page.frames().find((frame) => frame.url().endsWith('/pages/article'));
    const isThere = await inside?.evaluate(() => 'velarium' in window);
    expect(isThere).toBe(isWorking);
    await page.close();
  }
});
