import { restAll } from '../lib/api.ts';
import { leaveByMouse } from '../lib/gestures.ts';
import { expect, test, visit } from '../lib/velarium.ts';
import {
  addTrigger,
  beginCampaign,
  launch,
  openCampaign,
  place,
  removeTrigger,
  saved,
  say,
  sentence,
} from '../lib/workbench.ts';

test('J04 fourth visit: a cheaper tour for who comes the fourth time, the same box on leaving, not on phones', async ({
  memberPage: page,
  velarium,
  visitor,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Cheaper night', /Fourth night/);
  // It comes from outside the window, from near by, and from outside again.
  await page.getByText('Animation', { exact: true }).click();
  const travels = page.getByLabel('Distance').first();
  await expect(travels).toHaveValue('');
  await travels.fill('40');
  await saved(page);
  await travels.fill('');
  await saved(page);
  await page.reload();
  await page.getByText('Animation', { exact: true }).click();
  await expect(travels).toHaveValue('');
  await say(page, 'everywhere, not on phones, every time');
  const count = await addTrigger(page, 'A count');
  await count.getByRole('combobox', { name: 'What is counted' }).click();
  await page.getByRole('option', { name: 'Sessions so far' }).click();
  await count.getByLabel('From the … th').fill('4');
  const others = page.getByRole('list', { name: 'Triggers' }).getByRole('button', { name: /^Remove/ });
  while ((await others.count()) > 1) await others.first().click();
  await expect(sentence(page)).toContainText('opens from the 4th session onwards');
  await place(page, 'top');
  await launch(page);

  const site = await visit(visitor, `${velarium.fell}/night-tours`);
  for (let session = 1; session <= 3; session++) {
    await site.pass(5);
    await expect(site.message).toHaveCount(0);
    await site.sleep('31:00');
    await site.reload();
  }
  await site.pass(1);
  await expect(site.message).toHaveCount(1);
  const box = () => site.message.locator('.box').boundingBox();
  expect((await box())?.y).toBeLessThan(100);

  await openCampaign(page, 'Cheaper night');
  await addTrigger(page, 'Leaving by mouse');
  await removeTrigger(page, 'A count');
  await place(page, 'bottom');
  await expect(sentence(page)).toContainText('at the bottom opens at a likely sign of leaving by mouse');
  await launch(page);
  await site.sleep('25:00:00');
  await site.reload();
  await site.pass(4);
  await expect(site.message).toHaveCount(0);
  await leaveByMouse(site);
  await expect(site.message).toHaveCount(1);
  // Its entrance takes its own time, whatever the page's clock says.
  await expect.poll(async () => (await box())?.y).toBeGreaterThan(300);
});
