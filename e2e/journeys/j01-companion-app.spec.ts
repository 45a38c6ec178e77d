import { restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { addTrigger, launch, newCampaign, rehearse, say, sentence, side, stage } from '../lib/workbench.ts';

test.use({ ground: 'page' });

const IPHONE =
  'Mozilla/5.0 (iPhone; CPU iPhone OS 19_0 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/19.0 Mobile/15E148 Safari/604.1';
const ANDROID =
  'Mozilla/5.0 (Linux; Android 16; K) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Mobile Safari/537.36';

test('J01 a star map is offered, and each system is led to its own address', async ({
  studioPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await newCampaign(page, 'Star map', /Pocket map/);
  const heading = stage(page, 'desktop').getByRole('textbox', { name: 'Heading' });
  await heading.click();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('The fell’s sky in your pocket');
  await stage(page, 'desktop').getByRole('textbox', { name: 'Button words' }).first().click();
  await page.getByText('Other addresses for phones of one system').click();
  await expect(page.getByLabel('On iOS')).toHaveValue('https://quillonfell.example/star-map/ios');
  // The picture moves to the foot, then the words go into the strip along the bottom edge.
  await page
    .getByRole('list', { name: 'Blocks' })
    .getByRole('button', { name: /^Picture/ })
    .click();
  await page.getByRole('radio', { name: 'Foot' }).check();
  await page.getByRole('button', { name: 'The box' }).click();
  await page.getByText('Way out', { exact: true }).click();
  await page.getByRole('button', { name: /^On hover/ }).click();
  await page.getByLabel('On hover as text').fill('#b3261e');
  await page.keyboard.press('Escape');
  await say(
    page,
    'after 8 seconds, on aurora over the fell, on every device, not on desktops, once every 30 days',
  );
  const click = await addTrigger(page, 'An element used');
  await click.getByRole('textbox', { name: 'Element' }).fill('.standfirst');
  await side(page, 'Limits');
  await page.getByText('Schedule', { exact: true }).click();
  await page.getByRole('switch', { name: 'Runs at certain times only' }).click();
  await page.getByRole('textbox', { name: 'From' }).fill('2026-01-05T08:00');
  await page.getByRole('textbox', { name: 'Until' }).fill('2031-01-05T08:00');
  await expect(sentence(page)).toContainText(
    'after 8 seconds or on a click on “.standfirst” only on /journal/aurora-over-the-fell, on tablets and phones only',
  );
  const rehearsed = { name: 'Star map', path: '/journal/aurora-over-the-fell' };
  await rehearse(page, { ...rehearsed, on: 'phone', comesTo: 'Opens on page 1 at 0:08' });
  await rehearse(page, { ...rehearsed, comesTo: null });
  await launch(page);
  const phone = { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true };
  const article = `${velarium.fell}/journal/aurora-over-the-fell`;
  for (const [options, path] of [
    [{ ...phone, userAgent: IPHONE }, '/ios'],
    [{ ...phone, userAgent: ANDROID }, '/android'],
    [{ ...phone, viewport: { width: 820, height: 1180 } }, ''],
  ] as const) {
    const context = await newVisitor(browser, options);
    const site = await visit(context, article);
    await site.pass(7.5);
    await expect(site.message).toHaveCount(0);
    await site.pass(1.5);
    const link = site.dialog.getByRole('link', { name: 'Get the star map' });
    await expect(link).toHaveAttribute('href', `https://quillonfell.example/star-map${path}`);
    await expect(site.dialog.getByRole('heading')).toHaveText('The fell’s sky in your pocket');
    await site.dialog.getByRole('button', { name: 'Not tonight' }).click();
    await expect(site.message).toHaveCount(0);
    await context.close();
  }
  const tapping = await newVisitor(browser, phone);
  const site = await visit(tapping, article);
  await site.page.locator('.standfirst').tap();
  await site.pass(0.5);
  await expect(site.dialog).toBeVisible();
  await tapping.close();

  const desktop = await visit(await newVisitor(browser), article);
  await desktop.pass(10);
  await expect(desktop.message).toHaveCount(0);
});
