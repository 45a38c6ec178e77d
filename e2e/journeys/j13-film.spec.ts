import { restAll } from '../lib/api.ts';
import { expect, test, visit } from '../lib/velarium.ts';
import { beginCampaign, launch, outline, say } from '../lib/workbench.ts';

test('J13 a film three seconds after load, 60 % of the window wide, of whose host nothing loads before it is played', async ({
  memberPage: page,
  velarium,
  visitor,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Film', /Film night/);
  await outline(page)
    .getByRole('button', { name: /^Video/ })
    .click();
  // A host that cannot be reached: whatever is asked of it is seen as a request all the same.
  await page.getByLabel('Address of the video').fill('http://127.0.0.1:9/films/one-night');
  await say(page, 'after 3 seconds, everywhere, on every device, every time');
  await launch(page);
  const asked: string[] = [];
  visitor.on('request', (request) => asked.push(request.url()));
  const ofHost = () => asked.filter((url) => url.includes(':9/'));
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.pass(2.5);
  await expect(site.message).toHaveCount(0);
  await site.pass(1);
  await expect(site.dialog).toBeVisible();
  expect((await site.dialog.boundingBox())?.width).toBeCloseTo(1280 * 0.6, 0);
  expect(ofHost()).toEqual([]);
  await site.dialog.getByRole('button', { name: /^Play/ }).click();
  await expect.poll(ofHost).toEqual(['http://127.0.0.1:9/films/one-night?autoplay=1']);
});
