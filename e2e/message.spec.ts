import { expectAccessible } from './lib/accessibility.ts';
import { restAll } from './lib/api.ts';
import { expect, newVisitor, test, visit } from './lib/velarium.ts';
import {
  addBlock,
  beginCampaign,
  openEverywhere,
  openWorkbench,
  outline,
  saved,
  stage,
} from './lib/workbench.ts';

test('blocks are added, moved by keys, duplicated, taken away, and all of it undone', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'Blocks', /Corner invitation/);
  await expect(outline(page).getByRole('listitem')).toHaveCount(3);
  await addBlock(page, 'Line');
  await addBlock(page, 'Countdown');
  await expect(outline(page).getByRole('listitem')).toHaveCount(5);
  await expect(stage(page, 'phone').getByRole('timer')).toBeVisible();
  await page.getByRole('button', { name: /^Move up/ }).click();
  await expect(outline(page).getByRole('listitem').nth(3)).toContainText('Countdown');
  await page.keyboard.press('ControlOrMeta+Shift+ArrowUp');
  await expect(outline(page).getByRole('listitem').nth(2)).toContainText('Countdown');
  await page.keyboard.press('ControlOrMeta+d');
  await expect(outline(page).getByText('Countdown')).toHaveCount(2);
  await page.keyboard.press('Delete');
  await expect(outline(page).getByText('Countdown')).toHaveCount(1);
  await expectAccessible(page);
  for (let n = 0; n < 6; n++) await page.keyboard.press('ControlOrMeta+z');
  await expect(outline(page).getByRole('listitem')).toHaveCount(3);
  await page.keyboard.press('ControlOrMeta+Shift+z');
  await expect(outline(page).getByRole('listitem')).toHaveCount(4);
  await saved(page);
});

test('an override for the phone shows as one, holds on the phone alone, and is dropped', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'Override', /Corner invitation/);
  await outline(page).getByRole('button', { name: /^Text/ }).click();
  await page.getByText('Style', { exact: true }).click();
  await page.getByRole('radio', { name: 'Phone' }).check();
  await page.getByLabel('Text size', { exact: true }).fill('28');
  await expect(stage(page, 'phone').locator('[data-block=words]')).toHaveCSS('font-size', '28px');
  await expect(stage(page, 'desktop').locator('[data-block=words]')).toHaveCSS('font-size', '16px');
  await expect(page.getByText('differs on phone')).toBeVisible();
  await page.getByRole('button', { name: 'Drop what is said for phone' }).click();
  await expect(stage(page, 'phone').locator('[data-block=words]')).toHaveCSS('font-size', '16px');
  await expect(page.getByText('differs on phone')).toHaveCount(0);
});

test('words chosen on the stage become bold, coloured and a link, and visitors see them so', async ({
  memberPage: page,
  velarium,
  visitor,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Words', /Corner invitation/);
  const text = stage(page, 'desktop').getByRole('textbox', { name: 'Text' });
  const choose = async (key: string) => {
    await text.click();
    await page.keyboard.press('ControlOrMeta+Home');
    for (let n = 0; n < 4; n++) await page.keyboard.press(key);
  };
  await choose('Shift+ArrowRight');
  await page.getByRole('button', { name: /^Bold/ }).click();
  await expect(stage(page, 'phone').locator('b')).toHaveText('Nine');
  await choose('Shift+ArrowRight');
  await page.getByRole('button', { name: 'Colour: accent' }).click();
  await page.getByRole('button', { name: 'Link', exact: true }).click();
  await page.getByLabel('Address the chosen words lead to').fill('/membership');
  await page.getByRole('button', { name: 'Link them' }).click();
  await page.keyboard.press('Escape');
  await openEverywhere(page, velarium);
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.pass(0.3);
  await expect(site.page.locator('velarium-message').getByRole('link', { name: 'Nine' })).toHaveAttribute(
    'href',
    '/membership',
  );
});

test('a picture is uploaded, described and chosen; a Look is changed for every message that follows it', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'Picture', /Corner invitation/);
  await addBlock(page, 'Picture');
  await expect(page.getByText('No picture is chosen yet')).toHaveCount(1);
  await page.getByRole('button', { name: 'Choose a picture' }).click();
  const library = page.getByRole('dialog', { name: 'Pictures' });
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="700" height="400"><rect width="700" height="400" fill="#a4471f"/></svg>';
  await library
    .getByLabel('Pictures to upload')
    .setInputFiles({ name: 'flag.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) });
  await expect(library.getByText('flag.svg')).toBeVisible();
  await expectAccessible(page);
  await library.getByLabel('What it shows').fill('A flag');
  await library.getByLabel('What it shows').blur();
  await library.getByRole('img', { name: /flag|A flag/ }).click();
  await expect(stage(page, 'phone').getByRole('img')).toHaveAttribute('srcset', /\/320 320w/);
  await saved(page);

  await page.getByRole('button', { name: 'The box' }).click();
  await page.getByRole('button', { name: 'Edit Looks' }).click();
  const looks = page.getByRole('dialog', { name: 'Looks' });
  await expectAccessible(page);
  await looks.getByRole('button', { name: /^Background/ }).click();
  await page.getByLabel('Background as text').fill('#0b3d2e');
  await page.getByLabel('Background as text').blur();
  await page.keyboard.press('Escape');
  await looks.getByRole('button', { name: 'Save the Look' }).click();
  await looks.getByRole('button', { name: 'Close' }).click();
  await expect(stage(page, 'desktop').locator('.card')).toHaveCSS('background-color', 'rgb(11, 61, 46)');
});

test('a finding is mended by one click', async ({ memberPage: page, velarium }) => {
  await beginCampaign(page, velarium, 'Findings', /Letter strip/);
  await page.getByText('Findings', { exact: true }).click();
  await expect(page.getByText('The form asks for no consent.')).toBeVisible();
  await page.getByRole('button', { name: 'Write plain words for it' }).click();
  await expect(page.getByText('The form asks for no consent.')).toHaveCount(0);
  await expect(stage(page, 'desktop').getByText('I agree that my details are kept')).toBeVisible();
});

test('another template keeps the words, and says which would be lost before it does', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'Template', /Sky letter/);
  await page.getByRole('button', { name: 'Template …' }).click();
  await page.getByRole('menuitem', { name: /another template/ }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('radio', { name: /Notice strip/ }).check();
  await expect(dialog.getByRole('status')).toContainText('The sky this week, in your inbox');
  await dialog.getByRole('button', { name: 'Change the template' }).click();
  await expect(page.getByRole('region', { name: 'Rule sentence' })).toContainText('A bar at the top opens');
  await expect(stage(page, 'desktop').getByText('Every Thursday')).toBeVisible();
  await page.keyboard.press('ControlOrMeta+z');
  await expect(page.getByRole('region', { name: 'Rule sentence' })).toContainText(
    'A modal in the centre opens',
  );
});

test('a block is dragged on the stage to another place, into a column, and back by undo', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'Dragged', /Corner invitation/);
  await addBlock(page, 'Columns');
  const blocks = stage(page, 'desktop').locator('.inner > [data-block]');
  await expect(blocks).toHaveCount(4);
  const first = await blocks.first().getAttribute('data-block');
  await blocks.first().click();
  const drag = async (to: { x: number; y: number } | null | undefined) => {
    const grip = await stage(page, 'desktop').locator('.stage-grip').boundingBox();
    if (!grip || !to) throw new Error('expected a grip and a place to drag it to');
    await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
    await page.mouse.down();
    await page.mouse.move(to.x, to.y, { steps: 5 });
    await expect(stage(page, 'desktop').locator('.stage-line')).toBeVisible();
    await page.mouse.up();
  };
  const second = await blocks.nth(1).boundingBox();
  await drag(second && { x: second.x + 20, y: second.y + second.height - 1 });
  await expect(blocks.nth(1)).toHaveAttribute('data-block', first ?? '');
  const column = await stage(page, 'desktop').locator('.column').first().boundingBox();
  await drag(column && { x: column.x + 4, y: column.y + 4 });
  await expect(stage(page, 'desktop').locator(`.column [data-block="${first}"]`)).toBeVisible();
  await expect(page.getByRole('list', { name: 'Column' }).first().getByRole('listitem')).toHaveCount(1);
  await page.keyboard.press('ControlOrMeta+z');
  await page.keyboard.press('ControlOrMeta+z');
  await expect(blocks.first()).toHaveAttribute('data-block', first ?? '');
});

test('another place on a tablet and a picture as way out', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Elsewhere', /Corner invitation/);
  await page.getByText('Size and spacing').click();
  await page.getByRole('radio', { name: 'Tablet' }).first().check();
  await page.getByRole('group', { name: 'Place on a tablet' }).getByLabel('upper left').check();
  await page.getByText('Way out', { exact: true }).click();
  await page.getByRole('radio', { name: 'A picture' }).check();
  await page.getByRole('button', { name: 'Choose a picture' }).click();
  await page.getByRole('dialog').getByRole('button', { name: /moon/i }).first().click();
  await page.getByLabel('Read out as').fill('Not tonight');
  await openEverywhere(page, velarium);

  const context = await newVisitor(browser, {
    viewport: { width: 820, height: 1180 },
    isMobile: true,
    hasTouch: true,
  });
  const site = await visit(context, `${velarium.fell}/about`);
  const card = site.message.locator('.card');
  await expect(card).toBeVisible();
  await site.pass(1);
  const box = await card.boundingBox();
  expect([box?.x, box?.y].every((from) => (from ?? 999) < 40)).toBe(true);
  const close = site.message.getByRole('button', { name: 'Not tonight' });
  expect(await close.evaluate((button) => getComputedStyle(button).backgroundImage)).toContain('/pictures/');
  await close.click();
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
  await context.close();
});

test('what the page behind can do, and how high the box is, differ on a phone', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Behind', /Sky letter/);
  await page.getByText('Size and spacing').click();
  await page.getByRole('radio', { name: 'Phone' }).first().check();
  await page.getByLabel('Never higher than').fill('240');
  await page.getByText('The page behind', { exact: true }).click();
  await page.getByRole('switch', { name: 'Can be scrolled' }).click();
  await page.getByRole('switch', { name: 'A click on it closes the message' }).click();
  await page.getByRole('radio', { name: 'All devices' }).last().check();
  await expect(page.getByRole('switch', { name: 'Can be scrolled' })).not.toBeChecked();
  await expect(page.getByRole('switch', { name: 'A click on it closes the message' })).toBeChecked();
  await openEverywhere(page, velarium);

  const asked = async (options: Parameters<typeof newVisitor>[1]) => {
    const context = await newVisitor(browser, options);
    const site = await visit(context, `${velarium.fell}/journal/aurora-over-the-fell`);
    await site.pass(1);
    await expect(site.dialog).toBeVisible();
    const { height } = (await site.dialog.boundingBox()) ?? { height: 0 };
    await site.page.evaluate(() => {
      // On its way in, where the page hears of what goes on over the message.
      const note = (event: Event) => {
        setTimeout(() => {
          document.body.dataset.held = `${event.defaultPrevented}`;
        });
      };
      addEventListener('wheel', note, { capture: true });
    });
    await site.page.mouse.move(8, 600);
    await site.page.mouse.wheel(0, 200);
    const body = site.page.locator('body');
    await expect
      .poll(async () => {
        await site.pass(0.05);
        return body.getAttribute('data-held');
      })
      .not.toBeNull();
    const isHeld = (await body.getAttribute('data-held')) === 'true';
    await site.page.mouse.click(8, 600);
    // On a slow machine a second may have passed by itself before the click has come.
    let isOpen = true;
    for (let n = 0; n < 8 && isOpen; n++) {
      await site.pass(0.5);
      isOpen = await site.dialog.isVisible();
    }
    await context.close();
    return { isLow: Math.round(height) <= 240, isHeld, isOpen };
  };
  expect(await asked({})).toEqual({ isLow: false, isHeld: true, isOpen: false });
  expect(await asked({ viewport: { width: 390, height: 844 } })).toEqual({
    isLow: true,
    isHeld: false,
    isOpen: true,
  });
});

test('a box too low for its button says so, as it is measured on each device, and is mended by one press', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'Too low', /Sky letter/);
  await page.keyboard.press('ControlOrMeta+k');
  await page.getByPlaceholder(/^An action, or a wish/).fill('height 190');
  await expect(page.getByRole('option', { selected: true })).toContainText('height');
  await page.keyboard.press('Enter');
  const findings = page.getByRole('listitem').filter({ hasText: 'below its edge' });
  await page.getByText('Findings', { exact: true }).click();
  await expect(findings.filter({ hasText: 'On a desktop' })).toContainText(
    'visitors must scroll in the message',
  );
  await expect(findings.filter({ hasText: 'On a tablet' })).toContainText('among it');
  await page.getByRole('button', { name: 'Launch', exact: true }).click();
  await expect(page.getByRole('dialog').getByRole('list', { name: 'Checks' })).toContainText(
    'px below its edge',
  );
  await page.getByRole('dialog').getByRole('button', { name: 'Not yet' }).click();
  await findings.first().getByRole('button', { name: 'As high as its content' }).click();
  await expect(findings).toHaveCount(0);
});

test('how messages are looked at is the same on the next campaign and after a reload', async ({
  memberPage: page,
  velarium,
}) => {
  const behind = page.locator('iframe[title="The page behind"]');
  const isPressed = async (ground: boolean, size: boolean) => {
    await expect(page.getByRole('button', { name: /^Page behind/ })).toHaveAttribute(
      'aria-pressed',
      `${ground}`,
    );
    await expect(page.getByRole('button', { name: /^Real size/ })).toHaveAttribute('aria-pressed', `${size}`);
    await expect(behind).toHaveCount(ground ? 2 : 0);
  };
  await openWorkbench(page, velarium, 'Summit road closed');
  await isPressed(false, false);
  await page.getByRole('button', { name: /^Page behind/ }).click();
  await page.getByRole('button', { name: /^Real size/ }).click();
  await isPressed(true, true);
  // At its real size a window is larger than the room for it: the message in its lower right corner is brought in sight.
  await openWorkbench(page, velarium, 'Places on Friday’s tour');
  await isPressed(true, true);
  const box = stage(page, 'desktop').locator('.box');
  await expect(box).toBeInViewport({ ratio: 1 });
  await page.reload();
  await isPressed(true, true);
  await expect(box).toBeInViewport({ ratio: 1 });
  const size = page.getByRole('button', { name: /^Real size/ });
  await size.click();
  await expect(size).toHaveAttribute('aria-pressed', 'false');
  await size.click();
  await expect(box).toBeInViewport({ ratio: 1 });
});
