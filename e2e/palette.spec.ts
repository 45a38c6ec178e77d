import { expectAccessible } from './lib/accessibility.ts';
import { expect, test } from './lib/velarium.ts';
import { beginCampaign, sentence, stage } from './lib/workbench.ts';

test('a rule typed into the palette is said back, made, and undone as one', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'Typed', /Corner invitation/);
  const before = (await sentence(page).textContent()) ?? '';
  await page.keyboard.press('ControlOrMeta+k');
  await page.keyboard.type('after 20 seconds on journal, not on phones, once a week, and dance');
  const proposal = page.getByRole('option', { name: /Make the rule say/ });
  await expect(proposal).toContainText('after 20 seconds only on addresses that begin with /journal/');
  await expect(proposal).toContainText('Not understood: dance');
  await page.keyboard.press('Enter');
  await expect(sentence(page)).toContainText('on desktops and tablets only, once every week');
  await page.keyboard.press('ControlOrMeta+z');
  await expect(sentence(page)).toHaveText(before);
  await page.keyboard.press('ControlOrMeta+k');
  await page.keyboard.type('on Saturday mornings');
  await expect(page.getByRole('status').filter({ hasText: 'say from when until when' })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(sentence(page)).toHaveText(before);
});

test('a wish about the design shows on the stage before it is taken, and leaves it when it is not', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'Wished', /Corner invitation/);
  const ground = () =>
    stage(page, 'desktop')
      .locator('.card')
      .first()
      .evaluate((card) => getComputedStyle(card).backgroundColor);
  let before = '';
  // One that is just being drawn anew has none.
  await expect.poll(async () => (before = await ground())).toMatch(/^rgb/);
  await page.keyboard.press('ControlOrMeta+k');
  await page.keyboard.type('background dark green and 420 wide');
  const proposal = page.getByRole('option', { name: /Change the message/ });
  await expect(proposal).toContainText('background dark green; width 420 px');
  await expect.poll(ground).toBe('rgb(0, 100, 0)');
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect.poll(ground).toBe(before);
  await page.keyboard.press('ControlOrMeta+k');
  await page.keyboard.type('background dark green');
  await page.keyboard.press('Enter');
  await expect.poll(ground).toBe('rgb(0, 100, 0)');
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(ground).toBe(before);
});
