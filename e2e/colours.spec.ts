import type { Locator, Page } from '@playwright/test';
import { contrastRatio } from '@velarium/core';
import { expect, test } from './lib/velarium.ts';

/** A colour as it is drawn, `#rrggbb`, with what lies behind it where it lets that through. */
const drawn = (page: Page, colour: string): Promise<string> =>
  page.evaluate((asked) => {
    const canvas = document.createElement('canvas');
    canvas.width = canvas.height = 1;
    const context = canvas.getContext('2d');
    if (!context) throw new Error('expected a canvas to draw on');
    for (const one of [getComputedStyle(document.body).backgroundColor, asked]) {
      context.fillStyle = one;
      context.fillRect(0, 0, 1, 1);
    }
    const [red = 0, green = 0, blue = 0] = context.getImageData(0, 0, 1, 1).data;
    return `#${[red, green, blue].map((part) => part.toString(16).padStart(2, '0')).join('')}`;
  }, colour);
const styleOf = (mark: Locator, name: 'color' | 'backgroundColor'): Promise<string> =>
  mark.evaluate((element, asked) => getComputedStyle(element)[asked], name);

test('in colours people have chosen themselves: what is drawn by its ground alone is seen, and buttons can be read', async ({
  studioPage: page,
}) => {
  await page.emulateMedia({ forcedColors: 'active', colorScheme: 'dark' });
  const paper = await drawn(page, await styleOf(page.locator('body'), 'backgroundColor'));
  const goTo = (place: string) =>
    page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: place, exact: true }).click();
  /** Source: WCAG 2.2, 1.4.11: three to one for what has to be told apart. */
  const expectSeen = async (mark: Locator) =>
    expect(
      contrastRatio(await drawn(page, await styleOf(mark, 'backgroundColor')), paper),
      `${mark}`,
    ).toBeGreaterThanOrEqual(3);

  const rate = page.getByRole('button', { name: /% .* to / }).first();
  await expectSeen(rate.locator('[aria-hidden] > span').first());
  await expectSeen(rate.locator('[aria-hidden] > span').last());
  const main = page.getByRole('button', { name: 'New campaign' });
  const [ground, words] = await Promise.all([styleOf(main, 'backgroundColor'), styleOf(main, 'color')]);
  /** Source: WCAG 2.2, 1.4.3. */
  expect(contrastRatio(await drawn(page, ground), await drawn(page, words))).toBeGreaterThanOrEqual(4.5);

  await goTo('Season');
  const lane = page
    .getByRole('region', { name: 'Weeks' })
    .getByRole('listitem')
    .filter({ hasText: 'Summit road closed' });
  await expectSeen(lane.locator('.bg-ink\\/80').first());
  await goTo('Rehearsal');
  await expectSeen(page.getByLabel('What each campaign would do').locator('.bg-sail').first());
  await goTo('Results');
  await expectSeen(page.getByText('showings, left scale').locator('i'));
  await page.emulateMedia({ forcedColors: null, colorScheme: null });
});
