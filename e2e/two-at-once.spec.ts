import { changeGroup, changeSettings, chooseGoals, makeGroup } from './lib/api.ts';
import { expect, test, type Velarium } from './lib/velarium.ts';
import { openPlace } from './lib/workbench.ts';

const settingsOf = async (velarium: Velarium) => {
  const [site] = await velarium.query<{
    settings: { sessionMinutes: number; limits: { gapSeconds: number } };
  }>('SELECT settings FROM site ORDER BY created_at LIMIT 1');
  return site?.settings;
};

test('what is changed of a site and not saved is still there when one comes back, and takes nothing back that another saved', async ({
  memberPage: page,
  velarium,
}) => {
  const open = async () => {
    await page.getByRole('link', { name: 'Site', exact: true }).click();
    await page.getByRole('tab', { name: 'What holds here' }).click();
  };
  const gap = page.getByLabel('Seconds between two');
  const save = page.getByRole('button', { name: 'Save', exact: true });
  await openPlace(page, velarium, 'board');
  await open();
  await gap.fill('77');
  await expect(page.getByText('Not saved yet.', { exact: true })).toBeVisible();
  await page.getByRole('link', { name: 'Board', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
  await open();
  await expect(gap).toHaveValue('77');

  // Another changes something else: both are kept, though this page has not heard of it.
  await changeSettings(velarium, { sessionMinutes: 44 });
  await save.click();
  await expect(page.getByText('All saved.')).toBeVisible();
  expect(await settingsOf(velarium)).toMatchObject({ sessionMinutes: 44, limits: { gapSeconds: 77 } });
  await expect(page.getByLabel('A session ends after')).toHaveValue('44');

  // The same: it is said before anything is saved, and decided by a person.
  const limits = (await settingsOf(velarium))?.limits;
  await gap.fill('88');
  await changeSettings(velarium, { limits: { ...limits, gapSeconds: 99 } as never });
  await save.click();
  await expect(page.getByText(/^Somebody has changed the same meanwhile\. Nothing was saved/)).toBeVisible();
  await expect(page.getByText(/saving puts yours in its place/)).toBeVisible();
  expect(await settingsOf(velarium)).toMatchObject({ limits: { gapSeconds: 99 } });
  await expect(gap).toHaveValue('88');
  await page.reload();
  await page.getByRole('tab', { name: 'What holds here' }).click();
  await expect(gap).toHaveValue('88');
  await page.getByRole('button', { name: 'Take the changes back' }).click();
  await expect(gap).toHaveValue('99');
  await expect(page.getByText('All saved.')).toBeVisible();
});

test('a dialog saves over what another has saved meanwhile only what it changed, and says where that is the same', async ({
  memberPage: page,
  velarium,
}) => {
  const tours = { kind: 'begins', address: '/night-tours/' } as const;
  const contact = { kind: 'exact', address: '/contact' } as const;
  const id = await makeGroup(velarium, 'What we sell', [tours]);
  const group = async () =>
    (await velarium.query('SELECT name, rules FROM page_group WHERE id = $1', [id]))[0];
  await openPlace(page, velarium, 'site');
  await page.getByRole('tab', { name: 'Page groups' }).click();
  await page.getByRole('button', { name: 'Edit What we sell' }).click();
  const dialog = page.getByRole('dialog');
  const name = dialog.getByLabel('Name');
  const save = dialog.getByRole('button', { name: 'Save' });
  await name.fill('Tours and more');
  await changeGroup(velarium, id, { name: 'What we sell', rules: [tours, contact] });
  await save.click();
  await expect(dialog).toHaveCount(0);
  expect(await group()).toEqual({ name: 'Tours and more', rules: [tours, contact] });

  await page.getByRole('button', { name: 'Edit Tours and more' }).click();
  await name.fill('Mine');
  await changeGroup(velarium, id, { name: 'Theirs', rules: [tours] });
  await save.click();
  await expect(page.getByText(/^Somebody has changed the same meanwhile\. Nothing was saved/)).toBeVisible();
  expect(await group()).toEqual({ name: 'Theirs', rules: [tours] });
  await save.click();
  await expect(dialog).toHaveCount(0);
  expect(await group()).toEqual({ name: 'Mine', rules: [tours] });

  await page.getByRole('button', { name: 'Edit Mine' }).click();
  await name.fill('Too late');
  await velarium.query('DELETE FROM page_group WHERE id = $1', [id]);
  await save.click();
  await expect(page.getByText(/^The group is gone\. Somebody has removed it/)).toBeVisible();
  await expect(name).toHaveValue('Too late');
});

test('two who choose the goals of one campaign have both of what they chose', async ({
  memberPage: page,
  velarium,
}) => {
  const [campaign] = await velarium.query<{ id: string }>(
    "SELECT id FROM campaign WHERE name = 'Sky letter for readers'",
  );
  const id = campaign?.id ?? '';
  const goals = await velarium.query<{ id: string; name: string }>(
    'SELECT g.id, g.name FROM goal g JOIN campaign c USING (site_id) WHERE c.id = $1 ORDER BY g.created_at, g.name',
    [id],
  );
  expect(goals).toHaveLength(2);
  const [mine, theirs] = goals;
  await chooseGoals(velarium, id, []);
  await openPlace(page, velarium, `campaigns/${id}/results`);
  await page.getByRole('button', { name: 'Choose goals' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('checkbox', { name: mine?.name ?? '' }).check();
  await chooseGoals(velarium, id, [theirs?.id ?? '']);
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toHaveCount(0);
  const [kept] = await velarium.query<{ goals: string[] }>('SELECT goals FROM campaign WHERE id = $1', [id]);
  expect([...(kept?.goals ?? [])].sort()).toEqual(goals.map((one) => one.id).sort());
});
