import { restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { addCondition, beginCampaign, launch, rehearse, say, sentence, stage } from '../lib/workbench.ts';

test('J19 third session, from a partner', async ({ memberPage: page, velarium, visitor, browser }) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Partner', /Corner invitation/);
  // The text that depends on the visitor is looked at as two of them.
  const heading = stage(page, 'desktop').getByRole('textbox', { name: 'Heading' });
  await heading.fill('Welcome back, {{visitor.firstName|stargazer}}');
  await page.getByRole('combobox', { name: 'Read as' }).click();
  await page.getByRole('option', { name: 'As Ada, a member, on an article' }).click();
  await expect(stage(page, 'desktop').getByText('Welcome back, Ada')).toBeVisible();
  await page.getByRole('combobox', { name: 'Read as' }).click();
  await page.getByRole('option', { name: 'As Somebody of whom nothing is known' }).click();
  await expect(stage(page, 'desktop').getByText('Welcome back, stargazer')).toBeVisible();
  await say(page, 'at once, everywhere, on every device, every time');
  await addCondition(page, 'Sessions so far');
  await addCondition(page, 'Came with a parameter');
  await page.getByRole('list').getByText('an arrival with').click();
  await page.getByRole('combobox', { name: 'Being' }).fill('partner');
  await expect(sentence(page)).toContainText(
    'for visitors with at least 3 sessions and with an arrival with “utm_source” being “partner”',
  );
  const arrival = { name: 'Partner', path: '/?utm_source=partner' };
  await rehearse(page, { ...arrival, session: 2, comesTo: null });
  await rehearse(page, { ...arrival, session: 3, comesTo: 'Opens on page 1 at 0:00' });
  await launch(page);
  const site = await visit(visitor, `${velarium.fell}/?utm_source=partner`);
  for (let session = 1; session <= 2; session++) {
    await site.pass(2);
    await expect(site.message).toHaveCount(0);
    await site.sleep('31:00');
    await site.go(`${velarium.fell}/?utm_source=partner`);
  }
  await site.pass(0.5);
  await expect(site.message).toHaveCount(1);
  await expect(site.message.getByRole('heading')).toHaveText('Welcome back, stargazer');

  const other = await visit(await newVisitor(browser), `${velarium.fell}/`);
  for (let session = 1; session <= 3; session++) {
    await other.pass(2);
    await expect(other.message).toHaveCount(0);
    await other.sleep('31:00');
    await other.go(`${velarium.fell}/`);
  }
});
