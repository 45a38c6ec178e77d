import type { Page } from '@playwright/test';
import { expect, test } from './lib/velarium.ts';
import { openCampaign, sentence } from './lib/workbench.ts';

test('keys belong to the place in front: a field keeps its own, a dialog lets nothing through', async ({
  studioPage: page,
}) => {
  const search = page.getByRole('searchbox', { name: 'Search by name or sentence' });
  await search.pressSequentially('sky letter for readers', { delay: 0 });
  await expect(search).toHaveValue('sky letter for readers');
  await expect(page).toHaveURL(/find=sky\+letter\+for\+readers/);
  await page.keyboard.press('ControlOrMeta+a');
  expect(await search.evaluate((field) => (field as HTMLInputElement).selectionEnd)).toBe(22);
  await expect(page.getByRole('toolbar', { name: 'Chosen campaigns' })).toHaveCount(0);
  await search.fill('');
  await search.blur();
  const rows = page.getByRole('list', { name: 'Campaigns' }).getByRole('listitem');
  await expect(rows).toHaveCount(4);
  const first = rows.first();
  const before = await first.boundingBox();
  await page.keyboard.press('ControlOrMeta+a');
  await expect(page.getByRole('toolbar', { name: 'Chosen campaigns' })).toBeVisible();
  // Choosing moves nothing.
  expect((await first.boundingBox())?.y).toBe(before?.y);
  await page.getByRole('button', { name: 'Choose none' }).click();
  await page.keyboard.press('n');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByRole('toolbar', { name: 'Chosen campaigns' })).toHaveCount(0);

  await openCampaign(page, 'Welcome to members');
  await expect(sentence(page)).toBeVisible();
  await page.keyboard.press('t');
  await expect(page.getByText('Tablet, 820 by 1180')).toBeVisible();
  await page.getByRole('link', { name: 'Board', exact: true }).first().click();
  await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
  await page.keyboard.press('t');
  await expect(page.getByRole('heading', { name: 'Team' })).toBeVisible();
});

const hints = (page: Page) => page.getByRole('toolbar', { name: 'Stage' }).locator('kbd');

test('keys of one letter are turned off in every window of a browser, those with Ctrl stay', async ({
  studioPage: page,
}) => {
  const other = await page.context().newPage();
  await other.goto(page.url());
  await openCampaign(other, 'Welcome to members');
  await expect(hints(other).first()).toBeVisible();
  await page.getByRole('button', { name: 'Mara' }).click();
  await page.getByRole('menuitem', { name: 'Turn one-letter keys off' }).click();
  await expect(page.getByText('One-letter keys are off in this browser.')).toBeVisible();
  await expect(hints(other)).toHaveCount(0);
  await other.close();
  await page.reload();
  await openCampaign(page, 'Welcome to members');
  await expect(sentence(page)).toBeVisible();
  await expect(hints(page)).toHaveCount(0);
  for (const key of ['t', 'b', 's', '/']) await page.keyboard.press(key);
  await page.keyboard.press('ControlOrMeta+k');
  await page.getByPlaceholder(/^An action, or a wish/).fill('one-letter');
  await expect(page.getByRole('option').locator('kbd')).toHaveCount(0);
  await page.keyboard.press('Enter');
  await expect(hints(page).first()).toHaveText('T');
  await expect(page.getByText('Desktop, 1280 by 800')).toBeVisible();
  await page.keyboard.press('t');
  await expect(page.getByText('Tablet, 820 by 1180')).toBeVisible();
});

/** Goes on by Tab for so many steps; what is covered, or out of sight, while it has the focus. */
async function coveredByKeys(page: Page, steps: number): Promise<string[]> {
  const covered = new Set<string>();
  for (let n = 0; n < steps; n++) {
    await page.keyboard.press('Tab');
    const found = await page.evaluate(() => {
      const one = document.activeElement;
      const { left, top, width, height } = one?.getBoundingClientRect() ?? new DOMRect();
      // A mark on a line has no width; of a whole panel a part is seen.
      if (!one || width === 0 || height > innerHeight) return '';
      const hit = document.elementFromPoint(left + width / 2, top + height / 2);
      return one.contains(hit) || hit?.contains(one) ? '' : one.outerHTML.slice(0, 160);
    });
    if (found) covered.add(found);
  }
  return [...covered];
}

test('what keys lead to is in sight, above a foot that stays and where a dialog begins anew', async ({
  studioPage: page,
}) => {
  await page.setViewportSize({ width: 1280, height: 480 });
  await page.getByRole('button', { name: 'New campaign' }).click();
  await expect(page.getByRole('dialog').getByRole('radio').first()).toBeVisible();
  expect(await coveredByKeys(page, 30)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Site', exact: true }).click();
  await page.getByRole('tab', { name: 'What holds here' }).click();
  await expect(page.getByRole('button', { name: 'Save', exact: true })).toBeVisible();
  expect(await coveredByKeys(page, 40)).toEqual([]);
  await page.getByRole('tab', { name: 'Looks' }).click();
  await page.getByRole('button', { name: 'Change Night ridge' }).click();
  const close = page.getByRole('dialog').getByRole('button', { name: 'Close' });
  await expect(close).toBeVisible();
  await close.focus();
  await page.keyboard.press('Shift+Tab');
  await expect(close).not.toBeInViewport();
  await page.keyboard.press('Tab');
  await expect(close).toBeFocused();
  await expect(close).toBeInViewport();
});
