import type { Locator, Page } from '@playwright/test';
import { publishEverywhere, type RuleOf } from './api.ts';
import { expect, type Velarium } from './velarium.ts';

/** Makes a campaign from a template through the interface and opens its Workbench. */
export async function newCampaign(page: Page, name: string, template: RegExp): Promise<void> {
  await page.getByRole('button', { name: 'New campaign' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill(name);
  await page.getByRole('radio', { name: template }).check();
  await page.getByRole('button', { name: 'Make the campaign' }).click();
  await expect(page.getByLabel('Campaign name')).toHaveValue(name);
}

export const stage = (page: Page, device: 'desktop' | 'phone') =>
  page.frameLocator(`iframe[title="Message on ${device}"]`);
export const outline = (page: Page): Locator => page.getByRole('list', { name: 'Blocks' });
export const saved = (page: Page) => expect(page.getByText('All saved')).toBeVisible();

export async function addBlock(page: Page, kind: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a block' }).click();
  const choices = page.getByRole('dialog', { name: 'Add a block' });
  await choices.getByRole('button', { name: kind, exact: true }).click();
}

/**
 * Publishes what is on the Workbench, to open at once on every page and device unless the test says otherwise. Reach and
 * moment are set through the API: these journeys are about the message.
 */
export async function openEverywhere(page: Page, velarium: Velarium, rule: RuleOf = {}): Promise<string> {
  await saved(page);
  const id = page.url().split('/').at(-1) ?? '';
  await publishEverywhere(velarium, id, rule);
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
  await page.getByPlaceholder(/^An action, or a rule/).fill(rule);
  await expect(page.getByRole('option', { name: /Make the rule say/ })).toBeVisible();
  await expect(page.getByText(/Not understood/)).toHaveCount(0);
  await page.keyboard.press('Enter');
}

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
