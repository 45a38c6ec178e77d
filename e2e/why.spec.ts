import { expectAccessible } from './lib/accessibility.ts';
import { publish } from './lib/api.ts';
import { expect, test, visit } from './lib/velarium.ts';
import { openCampaign, openPlace } from './lib/workbench.ts';

test('a visitor who was given a code sees why a message does not show, changes nothing by it, and lets the team know', async ({
  memberPage: page,
  velarium,
  visitor,
}) => {
  const id = await publish(velarium, {
    name: 'Once and no more',
    triggers: [{ kind: 'time', seconds: 2 }],
    limits: { afterClose: 'ever' },
  });
  // They have closed it, and it stays away.
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.pass(3);
  await site.message.getByRole('button', { name: 'Close' }).click();
  await site.settle();
  await site.page.close();

  await openPlace(page, velarium, 'board');
  await openCampaign(page, 'Once and no more');
  await page.getByRole('button', { name: 'Try it' }).click();
  await page.getByRole('button', { name: 'Why did it not show? …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Why did it not show?' });
  await expect(dialog.getByText(/Nobody has sent anything yet/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Make a code' }).click();
  const link = await dialog.getByText(/#velarium-preview=/).textContent();
  const [, code = ''] = /=([a-z2-9]{6})$/.exec(link ?? '') ?? [];
  expect(code).not.toBe('');
  await expectAccessible(page);

  const count = () => velarium.query('SELECT count(*)::int AS events FROM event');
  const before = await count();
  const asking = await visit(visitor, `${velarium.fell}/about#velarium-preview=${code}`);
  const record = () => asking.page.evaluate(() => JSON.stringify(Object.entries(localStorage).sort()));
  const remembered = await record();
  await asking.pass(4);
  const panel = asking.page.getByRole('region', { name: 'Velarium preview' });
  await expect(panel.getByText('Once and no more')).toBeVisible();
  const own = panel.getByRole('listitem').filter({ hasText: 'Once and no more' });
  await expect(own).toContainText('– Not shown');
  await expect(own).toContainText(/closed/i);
  await expect(panel.getByRole('button', { name: /Show .* now/ })).toHaveCount(0);
  await expect(asking.message).toHaveCount(0);
  await panel.getByRole('button', { name: /Send what this panel says/ }).click();
  await expect(panel.getByText('Sent, as it stands here. Thank you.')).toBeVisible();
  await asking.page.reload();
  await asking.pass(2);
  expect(await record()).toBe(remembered);
  expect(await count()).toEqual(before);

  const sent = dialog.getByRole('list', { name: 'What visitors have sent' }).getByRole('listitem').first();
  await expect(sent).toContainText('on /about');
  await expect(sent).toContainText('Not shown');
  const [kept] = await velarium.query<{ lines: object[] }>(
    'SELECT lines FROM why_report WHERE campaign_id = $1',
    [id],
  );
  // Nothing about them but what the panel says.
  for (const line of kept?.lines ?? [])
    expect(Object.keys(line).sort()).toEqual(['campaign', 'mark', 'name', 'why']);

  // Who leaves goes on as before; a code that has ended leads nowhere.
  await panel.getByRole('button', { name: /^Leave/ }).click();
  await expect(panel).toHaveCount(0);
  await velarium.query(`UPDATE why_code SET expires_at = now() - interval '1 second'`);
  const late = await visitor.newPage();
  await late.goto(`${velarium.fell}/about#velarium-preview=${code}`);
  await expect(late.getByText(/This preview has ended/)).toBeVisible();
});
