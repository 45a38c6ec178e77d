import { restAll } from '../lib/api.ts';
import { expect, test, visit } from '../lib/velarium.ts';
import { beginCampaign, launch, outline, say, sentence, stage } from '../lib/workbench.ts';

test('J15 a film whose pasted address is cleaned, on dark green, after 7 s, on all pages, for everyone', async ({
  memberPage: page,
  velarium,
  visitor,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Film', /Film night/);
  await outline(page)
    .getByRole('button', { name: /^Video/ })
    .click();
  const address = page.getByLabel('Address of the video');
  await address.fill('http://127.0.0.1:9/films/one-night?utm_source=letter&v=4#share');
  await address.blur();
  await expect(address).toHaveValue('http://127.0.0.1:9/films/one-night?v=4');
  // A host that cannot be reached tells nothing, and the desk says so.
  await expect(page.getByText('Title and still picture are those from before')).toBeVisible();
  // Another one tells what the film is called, what it looks like and where its frame is.
  await address.fill(`${velarium.standins}/films/saturn?list=planets&index=3#t=40`);
  await address.blur();
  await expect(address).toHaveValue(`${velarium.standins}/films/saturn/play#t=40`);
  await expect(page.getByLabel('Title')).toHaveValue('Saturn in eleven minutes');
  await expect(
    stage(page, 'desktop').getByRole('button', { name: 'Play: Saturn in eleven minutes' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'The box' }).click();
  await page
    .getByRole('button', { name: /^Background/ })
    .first()
    .click();
  await page.getByLabel('Background as text').fill('#0b3d2e');
  await page.keyboard.press('Escape');
  const green = ['background-color', 'rgb(11, 61, 46)'] as const;
  await expect(stage(page, 'desktop').locator('.card')).toHaveCSS(...green);
  await say(page, 'after 7 seconds, everywhere, on every device, every time');
  await expect(sentence(page)).toContainText('opens after 7 seconds on every page, on every device');
  await launch(page);
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.pass(6.5);
  await expect(site.message).toHaveCount(0);
  await site.pass(1);
  await expect(site.message.locator('.card')).toHaveCSS(...green);
  await site.dialog.getByRole('button', { name: /^Play/ }).click();
  await expect(site.dialog.locator('iframe')).toHaveAttribute(
    'src',
    `${velarium.standins}/films/saturn/play?autoplay=1#t=40`,
  );
});
