import type { Locator, Page } from '@playwright/test';
import { TEMPLATES } from '@velarium/core';
import { makeCampaign, publishEverywhere } from './api.ts';
import { expect, type Velarium } from './velarium.ts';

/** Makes a campaign from a template through the interface and opens its Workbench. */
export async function newCampaign(page: Page, name: string, template: RegExp): Promise<void> {
  await page.getByRole('button', { name: 'New campaign' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill(name);
  await page.getByRole('radio', { name: template }).check();
  await page.getByRole('button', { name: 'Make the campaign' }).click();
  await expect(page.getByLabel('Campaign name')).toHaveValue(name);
  // Where a dialog gives the focus back to when it goes comes a frame later, and would take it from who types by then.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => setTimeout(done))));
}

/**
 * The same by a request, without the dialog and without the Board where none is open yet: for tests that are about something else
 * than how a campaign begins.
 */
export async function beginCampaign(
  page: Page,
  velarium: Velarium,
  name: string,
  template: RegExp,
): Promise<void> {
  const id = TEMPLATES.find((one) => template.test(one.name))?.id ?? '';
  await goTo(page, velarium, await makeCampaign(velarium, name, id));
  await expect(page.getByLabel('Campaign name')).toHaveValue(name);
}

/** Goes to a place of the studio: within it where it is open, by its address where not. */
async function goTo(page: Page, { studio }: Velarium, place: string): Promise<void> {
  if (!page.url().startsWith(studio)) await page.goto(studio + place);
  else
    await page.evaluate((next) => {
      history.pushState(null, '', next);
      dispatchEvent(new PopStateEvent('popstate', { state: null }));
    }, place);
}

/** Opens a place of the demo's first site by its address. */
export async function openPlace(page: Page, velarium: Velarium, place: string): Promise<void> {
  const [site] = await velarium.query<{ id: string }>('SELECT id FROM site ORDER BY created_at LIMIT 1');
  await goTo(page, velarium, `/sites/${site?.id}/${place}`);
}

/** Opens the Workbench of a campaign by its address. */
export async function openWorkbench(page: Page, velarium: Velarium, name: string): Promise<void> {
  const [campaign] = await velarium.query<{ id: string; site: string }>(
    'SELECT id, site_id AS site FROM campaign WHERE name = $1',
    [name],
  );
  await goTo(page, velarium, `/sites/${campaign?.site}/campaigns/${campaign?.id}`);
  await expect(page.getByLabel('Campaign name')).toHaveValue(name);
}

export const stage = (page: Page, device: 'desktop' | 'phone') =>
  page.frameLocator(`iframe[title="Message on ${device}"]`);
export const outline = (page: Page): Locator => page.getByRole('list', { name: 'Blocks' });
/** An expectation looks only now and then; this is told at once. */
export const saved = (page: Page) => page.getByText('All saved').first().waitFor();

export async function addBlock(page: Page, kind: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a block' }).click();
  const choices = page.getByRole('dialog', { name: 'Add a block' });
  await choices.getByRole('button', { name: kind, exact: true }).click();
}

/**
 * Publishes what is on the Workbench, to open at once on every page and device, and stays there. The rule is set through
 * the API: tests that use this are about the message.
 */
export async function openEverywhere(page: Page, velarium: Velarium): Promise<string> {
  await saved(page);
  const id = page.url().split('/').at(-1) ?? '';
  await publishEverywhere(velarium, id, {});
  await page.reload();
  await expect(page.getByText('Running')).toBeVisible();
  return id;
}

export const sentence = (page: Page): Locator => page.getByRole('region', { name: 'Rule sentence' });
/** Opens one side of the Workbench. */
export const side = (page: Page, name: 'Message' | 'Moment' | 'Reach' | 'Limits') =>
  page.getByRole('button', { name, exact: true }).click();

/** Types a rule into the palette, all of which must be understood, and makes it. */
export async function say(page: Page, rule: string): Promise<void> {
  await page.keyboard.press('ControlOrMeta+k');
  await page.getByPlaceholder(/^An action, or a wish/).fill(rule);
  await expect(page.getByRole('option', { name: /Make the rule say/ })).toBeVisible();
  await expect(page.getByText(/Not understood/)).toHaveCount(0);
  await page.keyboard.press('Enter');
}

const triggers = (page: Page): Locator => page.getByRole('list', { name: 'Triggers' });

/** Adds a trigger under Moment; answers its row, opened. */
export async function addTrigger(page: Page, kind: string): Promise<Locator> {
  await side(page, 'Moment');
  await page.getByRole('button', { name: 'Add a trigger' }).click();
  await page.getByRole('menuitem', { name: kind, exact: true }).click();
  // It lies open to be set.
  return triggers(page).getByRole('listitem').last();
}
export const removeTrigger = (page: Page, kind: string) =>
  page
    .getByRole('button', { name: `Remove: ${kind}` })
    .first()
    .click();
/** The row of a trigger that is there, opened if it is not. */
export async function trigger(page: Page, words: string): Promise<Locator> {
  await side(page, 'Moment');
  const row = triggers(page).getByRole('listitem').filter({ hasText: words });
  if ((await row.locator('details').getAttribute('open')) === null) await row.locator('summary').click();
  return row;
}

/** Adds a condition to the audience, in the first group where there is one. */
export async function addCondition(page: Page, kind: string): Promise<void> {
  await side(page, 'Reach');
  const first = page.getByRole('button', { name: 'Only for some' });
  const another = page.getByRole('button', { name: 'Another condition' });
  await first.or(another).click();
  await page.getByRole('menuitem', { name: kind, exact: true }).click();
}

/** After a close it may come again at once. */
export async function mayComeAgain(page: Page): Promise<void> {
  await side(page, 'Limits');
  await page.getByText('Stays away', { exact: true }).click();
  await page
    .getByRole('group', { name: 'After a close' })
    .getByRole('radio', { name: 'It may come again' })
    .check();
}

/** Where the box stands, under Message. */
export async function place(page: Page, where: string): Promise<void> {
  await side(page, 'Message');
  await page.getByRole('group', { name: 'Place', exact: true }).getByLabel(where, { exact: true }).check();
}

/** Opens a campaign from the Board. */
export const openCampaign = (page: Page, name: string) =>
  page.getByRole('link', { name, exact: true }).click();

/** Publishes through Launch; the Board is shown afterwards. */
export async function launch(page: Page): Promise<void> {
  await saved(page);
  await page.keyboard.press('ControlOrMeta+Enter');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Publish/ })
    .click();
  await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
}

interface Rehearsed {
  /** Of the campaign that is open. */
  readonly name: string;
  /** The page that is visited, for half a minute. */
  readonly path: string;
  readonly on?: 'phone' | 'tablet';
  readonly session?: number;
  /** What the visitor does on it, as the menu calls it, and what more is said of that. */
  readonly does?: string;
  readonly how?: string;
  /** What becomes of it on its lane; `null` where the visit is not for it at all. */
  readonly comesTo: string | RegExp | null;
}

/** Plays a visit against the draft before it is launched, and comes back to the Workbench. */
export async function rehearse(
  page: Page,
  { name, path, on, session, does, how, comesTo }: Rehearsed,
): Promise<void> {
  await saved(page);
  await page.getByRole('link', { name: 'Rehearse', exact: true }).click();
  const first = page.getByRole('combobox', { name: 'Page 1', exact: true });
  await expect(first).toBeVisible();
  // The visit that was rehearsed before is still on the line.
  if (await page.getByRole('button', { name: 'Undo', exact: true }).isEnabled()) {
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Begin afresh' }).click();
  }
  await first.fill(path);
  await page.getByLabel('Stays').fill('30');
  if (on) await page.getByRole('radio', { name: on, exact: true }).check();
  if (session) await page.getByLabel('In their session number').fill(`${session}`);
  if (does) {
    await page.getByRole('button', { name: 'Something happens …' }).click();
    await page.getByRole('menuitem', { name: does }).click();
  }
  if (how) await page.getByRole('radio', { name: how, exact: true }).check();
  const lane = page.getByRole('listitem').filter({ hasText: name });
  if (comesTo === null) {
    await page.getByText('Not for this visit', { exact: true }).click();
    await expect(lane.first()).toBeVisible();
    await expect(lane.getByText(/^Opens/)).toHaveCount(0);
  } else await expect(lane.getByText(comesTo).first()).toBeVisible();
  await page.getByRole('link', { name: 'Board', exact: true }).click();
  await openCampaign(page, name);
  await saved(page);
}

/**
 * Opens, from the Board, what a campaign did, its visitors told apart in this way, and looks for these parts and no others: how many
 * met it, and how many of them converted.
 */
export async function expectParts(
  page: Page,
  name: string,
  by: string,
  parts: readonly (readonly [part: string, visitors: number, converters: number])[],
): Promise<void> {
  await page.getByRole('button', { name: `Actions for ${name}` }).click();
  await page.getByRole('menuitem', { name: 'Results' }).click();
  await page.getByRole('combobox', { name: /told apart/ }).click();
  await page.getByRole('option', { name: by, exact: true }).click();
  const rows = page.getByRole('table', { name: new RegExp(`^${by}:`) }).locator('tbody tr');
  await expect(rows).toHaveCount(parts.length);
  for (const [part, ...figures] of parts) {
    const cells = rows
      .filter({ has: page.getByRole('rowheader', { name: part, exact: true }) })
      .getByRole('cell');
    for (const [n, figure] of figures.entries()) await expect(cells.nth(n)).toHaveText(`${figure}`);
  }
}
