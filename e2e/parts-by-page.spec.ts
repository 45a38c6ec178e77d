import { changeSettings, publish, type RuleOf } from './lib/api.ts';
import { expectOpen, expectShut, test } from './lib/open.ts';
import { expect, type SitePage } from './lib/velarium.ts';

test.describe('the parts that not every page needs', () => {
  const only = (address: string): NonNullable<RuleOf['reach']> => ({
    pages: { include: [{ kind: 'exact', address }], exclude: [], follows: null },
  });
  /** A campaign that a schedule limits asks for it. */
  const scheduled: NonNullable<RuleOf['limits']> = {
    schedule: {
      zone: 'site',
      start: null,
      end: null,
      days: [],
      hours: [{ from: '00:00', to: '24:00' }],
      blackouts: [],
    },
  };
  const go = (site: SitePage, path: string) =>
    site.page.evaluate((to) => {
      history.pushState({}, '', to);
      // As pages that route do: at once, before anything could be fetched.
      (window as unknown as { velarium: { event(name: string): void } }).velarium.event('route drawn');
    }, path);

  test.beforeEach(async ({ velarium }) => {
    await velarium.query('DELETE FROM goal');
  });

  test('is fetched by the pages whose campaigns ask for it, and by no other; what happens meanwhile counts', async ({
    open,
    velarium,
    visitor,
  }) => {
    const requests: string[] = [];
    visitor.on('request', (request) => requests.push(request.url()));
    const fetched = () => requests.filter((url) => url.includes('/rare-')).length;
    await publish(velarium, {
      name: 'plain',
      reach: only('/members'),
      triggers: [{ kind: 'time', seconds: 1 }],
    });
    const site = await open(
      {
        triggers: [{ kind: 'event', name: 'route drawn', condition: null }],
        reach: only('/contact'),
        limits: scheduled,
      },
      '/about',
    );
    await site.pass(1);
    await go(site, '/members');
    await site.pass(1.5);
    await expect(site.message).toHaveCount(1);
    expect(fetched()).toBe(0);
    await go(site, '/contact');
    await expect.poll(fetched).toBe(1);
    await expectOpen(site);
    await go(site, '/about');
    await go(site, '/contact');
    await expectOpen(site);
    expect(fetched()).toBe(1);
    expect(site.problems).toEqual([]);
  });

  test('what is told of a visitor where nothing asks for it is known to the page that does', async ({
    open,
    velarium,
    visitor,
  }) => {
    // Where it is taken down, every page needs the part for it.
    await changeSettings(velarium, { recordedFacts: null });
    const requests: string[] = [];
    visitor.on('request', (request) => requests.push(request.url()));
    const fetched = () => requests.filter((url) => url.includes('/extras-')).length;
    const site = await open(
      {
        reach: {
          ...only('/contact'),
          audience: {
            match: 'all',
            groups: [
              {
                not: false,
                match: 'all',
                items: [
                  {
                    not: false,
                    condition: { kind: 'attribute', name: 'plan', value: 'friend' },
                  },
                ],
              },
            ],
          },
        },
      },
      '/about',
    );
    await site.shows(0);
    expect(fetched()).toBe(0);
    await site.page.evaluate(() => {
      const { velarium } = window as unknown as { velarium: { visitor(facts: object): void } };
      velarium.visitor({ plan: 'friend' });
    });
    await site.shows(0);
    expect(fetched()).toBe(0);
    await go(site, '/contact');
    await expectOpen(site);
    expect(fetched()).toBe(1);
    expect(site.problems).toEqual([]);
  });

  test('nothing opens where it cannot be had', async ({ open, velarium, visitor }) => {
    await visitor.route('**/tag/rare-*', (route) => route.fulfill({ status: 503 }));
    await publish(velarium, { name: 'plain', reach: only('/members') });
    const site = await open({ reach: only('/contact'), limits: scheduled }, '/contact');
    await site.pass(3);
    await expectShut(site);
    await go(site, '/members');
    await expectOpen(site);
  });
});
