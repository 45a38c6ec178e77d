import { chromium } from '@playwright/test';
import { accessibilityFaults } from './lib/accessibility.ts';
import { changeSettings, publish, restAll } from './lib/api.ts';
import { expect, newVisitor, type SitePage, test, type Velarium, visit } from './lib/velarium.ts';
import { openPlace } from './lib/workbench.ts';

const once = { caps: [{ max: 1, per: 'ever' as const }] };
const arm = async (velarium: Velarium) => {
  await restAll(velarium);
  await publish(velarium, { name: 'Capped', limits: once, message: { anchor: 'bottom-start' } });
  await publish(velarium, { name: 'Uncapped', message: { anchor: 'bottom-end' } });
};
const stored = (site: SitePage) =>
  site.page.evaluate(() => [
    ...Object.keys(localStorage).filter((name) => name.startsWith('velarium')),
    document.cookie,
  ]);
const consent = (site: SitePage, isGiven: boolean) =>
  site.page.evaluate(
    (given) =>
      (window as unknown as { velarium: { consent: (given: boolean) => void } }).velarium.consent(given),
    isGiven,
  );

test('Global Privacy Control: nothing is stored, and only what needs no memory shows', async ({
  velarium,
  visitor,
}) => {
  await arm(velarium);
  await visitor.addInitScript(() =>
    Object.defineProperty(navigator, 'globalPrivacyControl', { value: true }),
  );
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.pass(1);
  await expect(site.message).toHaveCount(1);
  expect(await stored(site)).toEqual(['']);
  await changeSettings(velarium, { privacy: { memory: 'assumed', honoursSignal: false } });
  await site.reload();
  await site.pass(1);
  await expect(site.message).toHaveCount(2);
});

test('who is not remembered is not divided: on every page they have the present message, and it is withheld from none', async ({
  velarium,
  visitor,
}) => {
  await restAll(velarium);
  await publish(velarium, {
    limits: { holdout: 60, withoutMemory: 'always' },
    variants: (message) => [
      { id: 'b', weight: 90, message: { ...message, format: 'modal', anchor: 'center' } },
    ],
  });
  await visitor.addInitScript(() =>
    Object.defineProperty(navigator, 'globalPrivacyControl', { value: true }),
  );
  const site = await visit(visitor, `${velarium.fell}/about`);
  for (let n = 0; n < 6; n++) {
    await site.pass(1);
    await expect(site.message.getByRole('region')).toBeVisible();
    await site.settle();
    await site.reload();
  }
  const told = await velarium.query<{ kind: string; variant: string | null }>(
    `SELECT DISTINCT kind, variant FROM event
      WHERE kind IN ('shown', 'held') AND campaign_id = (SELECT max(id::text) FROM campaign WHERE name = 'Test')::uuid`,
  );
  expect(told).toEqual([{ kind: 'shown', variant: null }]);
});

test('where consent is asked nothing is stored before it is given, and what was learned is kept then', async ({
  velarium,
  visitor,
}) => {
  await arm(velarium);
  await changeSettings(velarium, { privacy: { memory: 'asked', honoursSignal: true } });
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.pass(1);
  await expect(site.message).toHaveCount(1);
  expect(await stored(site)).toEqual(['']);

  await consent(site, true);
  await expect.poll(() => stored(site)).toContain('velarium:quillonfell2');
  await site.pass(1);
  await expect(site.message).toHaveCount(2);

  // Remembered: the next page says so again, and the capped one does not come back.
  await site.go(`${velarium.fell}/contact`);
  await consent(site, true);
  await site.pass(1);
  await expect(site.message).toHaveCount(1);

  // Refused: all of it is forgotten, and what needs memory stays away.
  await consent(site, false);
  await expect.poll(() => stored(site)).toEqual(['']);
  await site.go(`${velarium.fell}/about`);
  await site.pass(1);
  await expect(site.message).toHaveCount(1);
  expect(site.problems).toEqual([]);
});

test('subdomains of a site that asks for it share one session, and the rest keep their own', async ({
  velarium,
}) => {
  await restAll(velarium);
  await publish(velarium, { limits: { caps: [{ max: 1, per: 'session' }] } });
  const port = new URL(velarium.fell).port;
  const at = (host: string) => `http://${host}.quillonfell.example:${port}`;
  await velarium.query('UPDATE site SET origins = $1 WHERE key = $2', [
    [at('www'), at('shop')],
    'quillonfell2',
  ]);
  await changeSettings(velarium, { sharedDomain: 'quillonfell.example' });
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--host-resolver-rules=MAP *.quillonfell.example 127.0.0.1'],
  });
  const sessionsOf = async () =>
    new Set(
      (
        await velarium.query<{ session: string }>(
          `SELECT session FROM event WHERE kind = 'pageview' AND id::text ~ '^.{8}-.{4}-7' AND page LIKE '/acc%'`,
        )
      ).map(({ session }) => session),
    ).size;
  const expectStroll = async (messages: number) => {
    const context = await newVisitor(browser);
    const site = await visit(context, `${at('www')}/accessibility`);
    await site.pass(0.3);
    await expect(site.message).toHaveCount(1);
    await site.settle();
    await site.go(`${at('shop')}/accessibility`);
    await site.pass(1);
    await site.shows(messages);
    await context.close();
  };
  await expectStroll(0);
  expect(await sessionsOf()).toBe(1);
  await changeSettings(velarium, { sharedDomain: null });
  await expectStroll(1);
  expect(await sessionsOf()).toBe(3);
  await browser.close();
});

test('of what the page tells, sign-in, basket and the named attributes are recorded, and of who is not remembered nothing', async ({
  velarium,
  browser,
}) => {
  const visits = (isPrivate: boolean) =>
    velarium.query(
      `SELECT number, referrer, views, signed_in, basket_items, attributes FROM visit WHERE landing = $1`,
      [`/members?private=${isPrivate}`],
    );
  const signIn = async (isPrivate: boolean) => {
    const context = await newVisitor(browser);
    if (isPrivate) {
      await context.addInitScript(() =>
        Object.defineProperty(navigator, 'globalPrivacyControl', { value: true }),
      );
    }
    const site = await visit(context, `${velarium.fell}/members?private=${isPrivate}`);
    await site.page.getByLabel('Your name').fill('Ida Fell');
    await site.page.getByRole('button', { name: 'Sign in' }).click();
    await site.pass(1);
    // The headless browser drops beacons of a page that is really left; one that thinks so sends the same.
    await site.page.evaluate(() => window.dispatchEvent(new Event('pagehide')));
    await site.go(`${velarium.fell}/about`);
    await site.pass(1);
    await site.settle();
    await context.close();
  };
  await signIn(false);
  await expect
    .poll(() => visits(false))
    .toEqual([
      {
        number: 1,
        referrer: '',
        views: 2,
        signed_in: true,
        basket_items: 0,
        attributes: { plan: 'friend' },
      },
    ]);
  await signIn(true);
  const left = () =>
    velarium.query(`SELECT 1 FROM event WHERE kind = 'left' AND page = '/members?private=true'`);
  await expect.poll(async () => (await left()).length).toBeGreaterThan(0);
  expect(await visits(true)).toMatchObject([{ signed_in: null, basket_items: null, attributes: null }]);
});

test('single events go after days that an owner says; while they are typed nothing goes', async ({
  velarium,
  memberPage: page,
}) => {
  const kept = () => velarium.query("SELECT events_kept_days AS days FROM site WHERE key = 'quillonfell2'");
  await openPlace(page, velarium, 'site');
  await page.getByRole('tab', { name: 'What holds here' }).click();
  const section = page.getByRole('region', { name: 'What is kept' });
  await section.getByRole('switch', { name: 'Single events go after a time' }).click();
  const days = section.getByLabel('Kept for');
  await days.fill('40');
  expect(await kept()).toEqual([{ days: null }]);
  await days.fill('400');
  expect(await accessibilityFaults(page)).toEqual([]);
  await section.getByRole('button', { name: 'Remove those older than 400 days' }).click();
  await expect(page.getByText('Single events are kept for 400 days.')).toBeVisible();
  expect(await kept()).toEqual([{ days: 400 }]);
  await section.getByRole('switch').click();
  await expect(page.getByText('Single events are kept for ever.')).toBeVisible();
  expect(await kept()).toEqual([{ days: null }]);
});
