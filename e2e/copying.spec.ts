import { publish } from './lib/api.ts';
import { expect, test, visit } from './lib/velarium.ts';
import { beginCampaign, outline, sentence } from './lib/workbench.ts';

test('what is copied can be pasted where the browser has no clipboard for pages; where nothing may be copied it is said', async ({
  memberPage: page,
  velarium,
}) => {
  // As on an address without TLS.
  await page.addInitScript(() => Object.defineProperty(navigator, 'clipboard', { value: undefined }));
  await page.reload();
  await beginCampaign(page, velarium, 'Copied', /Sky letter/);
  await page.getByRole('button', { name: 'Copy the sentence' }).click();
  await expect(page.getByText('The sentence is on the clipboard.')).toBeVisible();
  const name = page.getByLabel('Campaign name');
  await name.fill('');
  await page.keyboard.press('ControlOrMeta+v');
  // The whole of it, as far as a name may be long.
  await expect(name).toHaveValue(/.{40}/);
  const pasted = await name.inputValue();
  expect(await sentence(page).textContent()).toContain(pasted.slice(0, 40));
  await name.fill('Copied');

  const headings = outline(page).getByRole('button', { name: /^Heading/ });
  await headings.click();
  await page.keyboard.press('ControlOrMeta+Shift+c');
  await expect(page.getByText('The block is on the clipboard.')).toBeVisible();
  await page.keyboard.press('ControlOrMeta+Shift+v');
  await expect(headings).toHaveCount(2);

  // Within a dialog, which keeps the focus to itself.
  await page.getByRole('button', { name: 'Try it' }).click();
  await page.getByRole('button', { name: 'A link for somebody else' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Make the link' }).click();
  const link = (await dialog.locator('code').textContent()) ?? '';
  await dialog.getByRole('button', { name: 'Copy the link' }).click();
  await expect(page.getByText('Copied.', { exact: true })).toBeVisible();
  await dialog.getByRole('button', { name: 'Done' }).click();
  await name.fill('');
  await page.keyboard.press('ControlOrMeta+v');
  await expect(name).toHaveValue(/.{40}/);
  expect(link.startsWith(await name.inputValue())).toBe(true);
  await name.fill('Copied');

  await page.evaluate(() => Object.assign(document, { execCommand: () => false }));
  await page.getByRole('button', { name: 'Copy the sentence' }).click();
  await expect(page.getByText('The browser did not allow copying. Select the sentence')).toBeVisible();
});

test('a code in a modal message is copied where the browser has no clipboard for pages, and the focus stays on its button', async ({
  velarium,
  visitor,
}) => {
  await publish(velarium, { template: 'welcome-code' });
  await visitor.addInitScript(() => Object.defineProperty(navigator, 'clipboard', { value: undefined }));
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.pass(0.5);
  const copy = site.dialog.getByRole('button', { name: 'Copy it' });
  await copy.press('Enter');
  const copied = site.dialog.getByRole('button', { name: 'Copied' });
  await expect(copied).toBeFocused();
  await site.page.keyboard.press('Escape');
  await site.pass(1);
  const field = await site.page.evaluateHandle(() => {
    const made = document.createElement('input');
    document.body.append(made);
    made.focus();
    return made;
  });
  await site.page.keyboard.press('ControlOrMeta+v');
  expect(await field.evaluate(({ value }) => value)).toBe('FIRSTLIGHT');
});
