import type { Page } from '@playwright/test';
import { expect, newVisitor, signIn, test } from './lib/velarium.ts';
import { beginCampaign, openCampaign, outline, saved, sentence, side } from './lib/workbench.ts';

/** A finger that is put down, moved and lifted, as the browser hears of it. */
async function dragByFinger(page: Page, from: { x: number; y: number }, byY: number): Promise<void> {
  const session = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', y: number) =>
    session.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: type === 'touchEnd' ? [] : [{ x: from.x, y }],
    });
  await touch('touchStart', from.y);
  for (let step = 1; step <= 10; step++) await touch('touchMove', from.y + (byY * step) / 10);
  await touch('touchEnd', from.y + byY);
}

test('blocks are put in order by a finger, which does not scroll their list', async ({
  browser,
  velarium,
}) => {
  const context = await newVisitor(browser, { hasTouch: true });
  const page = await context.newPage();
  await signIn(page, velarium);
  await openCampaign(page, 'Welcome to members');
  const rows = outline(page).getByRole('button', { name: /^Move / });
  const names = () => rows.evaluateAll((grips) => grips.map((grip) => grip.getAttribute('aria-label')));
  await expect(rows).not.toHaveCount(0);
  const [first, second, ...others] = await names();
  const box = await rows.first().boundingBox();
  const below = await rows.nth(1).boundingBox();
  if (!box || !below) throw new Error('expected two blocks that are seen');
  await dragByFinger(page, { x: box.x + box.width / 2, y: box.y + box.height / 2 }, below.y - box.y + 4);
  await expect.poll(names).toEqual([second, first, ...others]);
  await saved(page);
});

// WCAG 2.2, 2.5.7: what is dragged can be done by presses as well.
test('a campaign is moved in the order of its site by keys and by presses, and the sentence says so', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'Urgent', /Corner invitation/);
  await side(page, 'Limits');
  await page.getByText('Beside other campaigns', { exact: true }).click();
  const places = page.getByRole('list', { name: 'Order of the site’s campaigns' }).getByRole('listitem');
  await expect(places.last()).toContainText('Urgent');
  await page.getByRole('button', { name: 'Move Urgent in the order' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('Urgent is picked up.')).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('Urgent is at the place of Sky letter for readers.')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(places.last()).not.toContainText('Urgent');
  await expect(sentence(page)).toContainText('going before others with priority');
  await page.keyboard.press('ControlOrMeta+z');
  await expect(sentence(page)).not.toContainText('priority');
  await expect(places.last()).toContainText('Urgent');

  const up = page.getByRole('button', { name: 'Move Urgent up' });
  const down = page.getByRole('button', { name: 'Move Urgent down' });
  await expect(down).toHaveAttribute('aria-disabled', 'true');
  const place = async () => (await places.allTextContents()).findIndex((row) => row.includes('Urgent'));
  for (let at = await place(); at > 0; at = await place()) {
    await up.click();
    // Past those of one priority at once: nothing stands between equals.
    await expect.poll(place).toBeLessThan(at);
  }
  await expect(up).toHaveAttribute('aria-disabled', 'true');
  await expect(up).toBeFocused();
  await expect(sentence(page)).toContainText('going before others with priority');
  await down.click();
  await expect.poll(place).toBeGreaterThan(0);
});
