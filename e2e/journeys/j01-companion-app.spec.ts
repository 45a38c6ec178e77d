import { restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { newCampaign, openEverywhere, stage } from '../lib/workbench.ts';

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
  await openEverywhere(page, velarium);
  for (const [userAgent, path] of [
    [IPHONE, '/ios'],
    [ANDROID, '/android'],
    [undefined, ''],
  ] as const) {
    const context = await newVisitor(
      browser,
      userAgent ? { userAgent, viewport: { width: 390, height: 844 } } : {},
    );
    const site = await visit(context, `${velarium.fell}/about`);
    await site.pass(0.3);
    const link = site.dialog.getByRole('link', { name: 'Get the star map' });
    await expect(link).toHaveAttribute('href', `https://quillonfell.example/star-map${path}`);
    await expect(site.dialog.getByRole('heading')).toHaveText('The fell’s sky in your pocket');
    await site.dialog.getByRole('button', { name: 'Not tonight' }).click();
    await expect(site.message).toHaveCount(0);
    await context.close();
  }
});
