import { restAll } from '../lib/api.ts';
import { leaveByMouse } from '../lib/gestures.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { beginCampaign, launch, openCampaign, place, say, sentence } from '../lib/workbench.ts';

test('J09 everywhere but home: 35 s of stillness or leaving, only once; from the lower left to the top', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Still there', /Corner invitation/);
  await place(page, 'lower left');
  await page.getByText('Animation', { exact: true }).click();
  const coming = page.getByRole('group', { name: 'Coming in' });
  await coming.getByRole('combobox', { name: 'Coming in' }).click();
  await page.getByRole('option', { name: 'Drop in', exact: true }).click();
  await coming.getByLabel('Duration').fill('1800');
  await say(
    page,
    'after 35 seconds of stillness or on leaving, everywhere, not on home, on every device, once',
  );
  await expect(sentence(page)).toContainText('on every page but not on /');
  await launch(page);
  const arrive = async (path: string) => visit(await newVisitor(browser), velarium.fell + path);

  const home = await arrive('/');
  await home.pass(40);
  await leaveByMouse(home);
  await expect(home.message).toHaveCount(0);

  const still = await arrive('/about');
  await still.pass(20);
  await still.page.mouse.move(300, 300);
  await still.pass(34);
  await expect(still.message).toHaveCount(0);
  await still.pass(2);
  await expect(still.message).toHaveCount(1);
  await expect(still.message.locator('.box')).toHaveCSS('animation-duration', '1.8s');
  await still.go(`${velarium.fell}/contact`);
  await still.pass(40);
  await expect(still.message).toHaveCount(0);

  await openCampaign(page, 'Still there');
  await place(page, 'top');
  await page.getByText('Animation', { exact: true }).click();
  await coming.getByLabel('Duration').fill('200');
  await launch(page);
  const leaving = await arrive('/about');
  await leaveByMouse(leaving);
  await expect(leaving.message).toHaveCount(1);
  await expect(leaving.message.locator('.box')).toHaveCSS('animation-duration', '0.2s');
});
