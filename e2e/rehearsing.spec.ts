import { readFileSync } from 'node:fs';
import { expectAccessible } from './lib/accessibility.ts';
import { expect, test } from './lib/velarium.ts';
import { launch, openPlace, saved, say } from './lib/workbench.ts';

test('a visit is put together, played, expected of, kept, and asked again before a launch breaks it', async ({
  studioPage: page,
}) => {
  await page.keyboard.press('v');
  await expect(page.getByRole('heading', { name: 'Rehearsal', exact: true })).toBeVisible();
  await page.getByRole('combobox', { name: 'Begin with' }).click();
  await page.getByRole('option', { name: 'Somebody who keeps coming back' }).click();
  await expect(page.getByLabel('In their session number')).toHaveValue('4');

  const first = page.getByRole('combobox', { name: 'Page 1' });
  await first.fill('/night-tours/first-light');
  const lane = page.getByRole('listitem').filter({ hasText: 'Places on Friday’s tour' });
  await expect(lane.getByText('Opens on page 1 at 0:08')).toBeVisible();
  // By keys the page ends before that.
  const edge = page.getByRole('slider', { name: 'Seconds on /night-tours/first-light' });
  await page.getByLabel('Stays').fill('9');
  await edge.press('ArrowLeft');
  await edge.press('ArrowLeft');
  await expect(page.getByLabel('Stays')).toHaveValue('7');
  await expect(lane.getByText('Does not open')).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByLabel('Stays')).toHaveValue('9');
  await page.getByLabel('Stays').fill('30');

  // The next page comes with the stay its readers usually have.
  await page.getByLabel('Then goes to').fill('/contact');
  await page.getByRole('button', { name: 'Add the page' }).click();
  await expect(page.getByRole('list', { name: 'Pages of the visit' }).getByRole('listitem')).toHaveCount(2);
  await expect(page.getByText('Opens on page 2 at 0:00')).toBeVisible();
  await page.getByRole('button', { name: 'Something happens …' }).click();
  await page.getByRole('menuitem', { name: 'Leaves by mouse' }).click();
  const mark = page.getByRole('slider', { name: 'leaves (likely) on /contact' });
  await mark.press('Home');
  await expect(page.getByLabel('At', { exact: true })).toHaveValue('0');
  await mark.press('Delete');
  await expect(mark).toHaveCount(0);
  await expectAccessible(page);

  // A visit somebody really made takes its place, and Undo brings the other one back.
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Take a recorded visit …' }).click();
  const recorded = page.getByRole('dialog', { name: 'A recorded visit' });
  await recorded.getByRole('searchbox', { name: 'Find a visit' }).fill('phone /journal/finding-saturn');
  await expect(recorded.getByRole('listitem').first()).toContainText('on a phone');
  await expectAccessible(page);
  await recorded.getByRole('listitem').first().getByRole('button').click();
  await expect(first).toHaveValue(/finding-saturn/);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(first).toHaveValue('/night-tours/first-light');

  await page.getByRole('combobox', { name: 'Which campaign' }).click();
  await page.getByRole('option', { name: 'Places on Friday’s tour' }).click();
  await page.getByLabel('By second').fill('10');
  await page.getByRole('button', { name: 'Expect it' }).click();
  const expected = page.getByRole('region', { name: 'What must hold' });
  await expect(expected.getByText('✓ holds')).toBeVisible();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('A reader of the tours');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('“A reader of the tours” is kept')).toBeVisible();
  await expect(page).toHaveURL(/kept=/);
  await page.reload();
  await expect(expected.getByText('✓ holds')).toBeVisible();
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Export to a file' }).click();
  const written = JSON.parse(readFileSync(await (await file).path(), 'utf8'));
  expect(written).toMatchObject({ name: 'A reader of the tours', rehearsal: { form: 1 } });
  const read = (body: unknown) =>
    page.getByLabel('Rehearsal file').setInputFiles({
      name: 'rehearsal.json',
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify(body)),
    });
  await read({ ...written, rehearsal: { ...written.rehearsal, form: 2 } });
  await expect(page.getByText('written by a newer Velarium')).toBeVisible();
  await read({ name: 'x' });
  await expect(page.getByText(/^This is no rehearsal: rehearsal/)).toBeVisible();
  await expect(expected.getByText('✓ holds')).toBeVisible();

  // A draft that would break it is named by the launch, with the reason.
  await page.getByRole('link', { name: 'Board', exact: true }).click();
  await expect(page.getByRole('link', { name: '✓ 1 rehearsal holds' })).toBeVisible();
  await page.getByRole('link', { name: 'Places on Friday’s tour' }).click();
  await say(page, 'after 14 seconds');
  await saved(page);
  await page.getByRole('button', { name: /^Launch/ }).click();
  const sheet = page.getByRole('dialog');
  await expect(sheet.getByText('Of 1 rehearsal, 1 would not hold')).toBeVisible();
  await expect(sheet.getByText('It opens only at 0:14.')).toBeVisible();
  await expectAccessible(page);
  await sheet.getByRole('link', { name: 'A reader of the tours' }).click();
  await expect(expected.getByText('■ fails')).toBeVisible();
  await page.getByRole('combobox', { name: 'Played against' }).click();
  await page.getByRole('option', { name: 'What runs now' }).click();
  await expect(expected.getByText('✓ holds')).toBeVisible();

  // Launched all the same, it stands on the Board until it is mended, and leads to what fails.
  await page.getByRole('link', { name: 'Board', exact: true }).click();
  await page.getByRole('link', { name: 'Places on Friday’s tour' }).click();
  await launch(page);
  await page.getByRole('link', { name: '■ 1 of 1 rehearsal no longer holds' }).click();
  await expect(expected.getByText('■ fails')).toBeVisible();
  await expect(expected.getByText(/^Held last on/)).toBeVisible();
  await expect(expected.getByText(/Friday’s tour”: “.+” has become “after 14 seconds”\.$/)).toBeVisible();
});

test('a visit that is not kept is still on the line when one comes back; one that a link leads to takes its place', async ({
  memberPage: page,
  velarium,
}) => {
  await openPlace(page, velarium, 'rehearsal');
  const first = page.getByRole('combobox', { name: 'Page 1' });
  const undo = page.getByRole('button', { name: 'Undo', exact: true });
  await first.fill('/night-tours/first-light');
  await page.getByLabel('Stays').fill('44');
  await expect(page.getByText('0:44, 60 % deep')).toBeVisible();

  // An answer that does not come takes the place away, and not the visit.
  await page.route(/\/cast\?of=drafts/, (route) => route.fulfill({ status: 500 }));
  await page.getByRole('combobox', { name: 'Played against' }).click();
  await page.getByRole('option', { name: 'Every draft' }).click();
  await expect(first).toHaveCount(0);
  await page.unroute(/\/cast\?of=drafts/);
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByLabel('Stays')).toHaveValue('44');

  await page.getByRole('link', { name: 'Board', exact: true }).click();
  await page.getByRole('link', { name: 'Rehearsal', exact: true }).click();
  await expect(first).toHaveValue('/night-tours/first-light');
  await page.reload();
  await expect(page.getByLabel('Stays')).toHaveValue('44');
  await undo.click();
  await expect(page.getByLabel('Stays')).not.toHaveValue('44');
  await page.getByRole('button', { name: 'Redo', exact: true }).click();

  // Kept under a name, it goes by that name again, with what was changed since.
  await page.keyboard.press('ControlOrMeta+s');
  await page.getByRole('dialog').getByLabel('Name').fill('A slow reader');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page).toHaveURL(/kept=/);
  const kept = new URL(page.url()).searchParams.get('kept');
  await page.getByLabel('Stays').fill('50');
  await page.getByRole('link', { name: 'Board', exact: true }).click();
  await page.getByRole('link', { name: 'Rehearsal', exact: true }).click();
  await expect(page).toHaveURL(/kept=/);
  await expect(page.getByText('“A slow reader”', { exact: true })).toBeVisible();
  await expect(page.getByLabel('Stays')).toHaveValue('50');
  // A link leads to what is kept, and Undo to what had been changed.
  await page.getByRole('link', { name: 'Board', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
  await openPlace(page, velarium, `rehearsal?kept=${kept}`);
  await expect(page.getByLabel('Stays')).toHaveValue('44');
  await undo.click();
  await expect(page.getByLabel('Stays')).toHaveValue('50');

  await page.getByRole('link', { name: 'Board', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
  // A page that is asked for begins another, which is not kept; Undo brings back the one before, with its name.
  await openPlace(page, velarium, 'rehearsal?page=%2Fcontact');
  await expect(first).toHaveValue('/contact');
  await expect(page).not.toHaveURL(/kept=|page=/);
  await undo.click();
  await expect(page.getByText('“A slow reader”', { exact: true })).toBeVisible();
  await expect(page.getByLabel('Stays')).toHaveValue('50');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Begin afresh' }).click();
  await expect(page.getByText('“A slow reader”', { exact: true })).toHaveCount(0);
});
