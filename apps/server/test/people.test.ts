import type { AnswerPage, Person } from '@velarium/contract';
import { describe, expect, it, test } from 'vitest';
import { readMailAddress } from '../src/people/index.ts';
import {
  answer,
  campaign,
  counts,
  list,
  owner,
  type Sent,
  server,
  sharesAnswering,
  site,
} from './answering.ts';
import { addColleague, createWorkspace, eventId, randomVisitor } from './server.ts';

// RFC 5321, 4.1.2 and 4.5.3.1; RFC 5890 for domains in other letters.
describe('a mail address', () => {
  test.each<[string, string | undefined]>([
    ['Lark@Example.ORG', 'Lark@example.org'],
    [' lark@example.org ', 'lark@example.org'],
    ['lark+sky@bücher.example', 'lark+sky@xn--bcher-kva.example'],
    ['lark@xn--bcher-kva.example', 'lark@xn--bcher-kva.example'],
    ['lärk@example.org', 'lärk@example.org'],
    [`${'a'.repeat(64)}@example.org`, `${'a'.repeat(64)}@example.org`],
    [`${'a'.repeat(65)}@example.org`, undefined],
    [`a@${'b'.repeat(63)}.example`, `a@${'b'.repeat(63)}.example`],
    [`a@${'b'.repeat(64)}.example`, undefined],
    [`a@${'b.'.repeat(124)}org`, 'a@'.concat('b.'.repeat(124), 'org')],
    [`a@${'b.'.repeat(126)}org`, undefined],
    ['lark', undefined],
    ['@example.org', undefined],
    ['lark@', undefined],
    ['lark@example', undefined],
    ['lark@127.0.0.1', undefined],
    ['a..b@example.org', undefined],
    ['.a@example.org', undefined],
    ['a b@example.org', undefined],
    ['a@b@example.org', undefined],
    ['a@example.org\nBcc: x@example.org', undefined],
    ['a@-example.org', undefined],
  ])('%s: %s', (text, key) => {
    expect(readMailAddress(text)?.key).toBe(key);
  });
});

sharesAnswering();

const conversions = async () =>
  (
    (await owner.ask('GET', site('campaigns'))).json<
      { id: string; numbers: { conversions: number } }[]
    >()[0] as {
      numbers: { conversions: number };
    }
  ).numbers.conversions;
const everything = () =>
  server.db.query(
    `SELECT (SELECT count(*) FROM lead WHERE site_id = $1)::integer AS leads,
            (SELECT count(*) FROM person WHERE site_id = $1)::integer AS persons`,
    [owner.siteId],
  );

describe('one answer', () => {
  it('keeps what it was asked with, the page, the device and the variant', async () => {
    await answer('lark@example.org');
    expect((await list())[0]).toMatchObject({
      campaignName: 'Campaign',
      fields: [{ id: 'email', kind: 'email', label: 'Your mail address', value: 'lark@example.org' }],
      consentText: 'I would like to receive the weekly sky letter and can leave it at any time.',
      page: '/tours',
      device: 'mobile',
      variant: 'a',
      version: 1,
      held: null,
    });
  });

  it('sent twenty times at once is one, with one person', async () => {
    const id = eventId();
    await Promise.all(Array.from({ length: 20 }, () => answer('lark@example.org', { id })));
    expect(await everything()).toEqual([{ leads: 1, persons: 1 }]);
    expect(await conversions()).toBe(1);
  });

  it('of the same address, however its domain is written, is the same person’s', async () => {
    await Promise.all(
      ['lark@BÜCHER.example', 'lark@xn--bcher-kva.example', 'lark@bücher.Example'].map((one) => answer(one)),
    );
    await answer('Lark@bücher.example');
    expect(await everything()).toEqual([{ leads: 4, persons: 2 }]);
  });
});

describe('what looks wrong', () => {
  test.each<[string, Sent, string]>([
    ['sent within a second', { shownAgoMs: 300 }, 'tooSoon'],
    ['with the unseen field filled in', { unseen: 'https://spam.example' }, 'unseenField'],
  ])('%s is kept apart: not counted, nobody’s, until it is let through', async (_what, sent, held) => {
    await answer('lark@example.org', sent);
    expect(await list()).toEqual([]);
    expect(await counts()).toMatchObject({ found: 0, held: 1 });
    expect(await conversions()).toBe(0);
    const [kept] = await list('?isHeld=yes');
    expect(kept).toMatchObject({ held, person: null });
    const judged = await owner.ask('POST', site('answers/held'), { ids: [kept?.id], verdict: 'letThrough' });
    expect(judged.json()).toEqual({ count: 1 });
    expect((await list())[0]).toMatchObject({
      held: null,
      person: { address: 'lark@example.org', state: 'agreed' },
    });
    expect(await conversions()).toBe(1);
    // Twice changes nothing.
    expect(
      (await owner.ask('POST', site('answers/held'), { ids: [kept?.id], verdict: 'letThrough' })).json(),
    ).toEqual({
      count: 0,
    });
    expect(await conversions()).toBe(1);
  });

  it('can be thrown away with all that came with it', async () => {
    await answer('lark@example.org', { shownAgoMs: 10 });
    const [kept] = await list('?isHeld=yes');
    await owner.ask('POST', site('answers/held'), { ids: [kept?.id], verdict: 'throwAway' });
    expect(await everything()).toEqual([{ leads: 0, persons: 0 }]);
  });

  it('is many answers of one visitor, and not a hundred of people behind one address', async () => {
    const visitor = randomVisitor();
    for (let n = 0; n < 8; n++) await answer(`lark${n}@example.org`, { visitor, address: '203.0.113.50' });
    expect((await list('?isHeld=yes')).map(({ held }) => held)).toEqual([
      'manyFromVisitor',
      'manyFromVisitor',
    ]);
    for (let n = 0; n < 100; n++) await answer(`wren${n}@example.org`, { address: '203.0.113.51' });
    expect((await counts()).found).toBe(106);
  });

  it('is not somebody whose showing never arrived, as with a content blocker', async () => {
    await answer('lark@example.org', { shownAgoMs: null });
    expect(await list()).toHaveLength(1);
  });
});

describe('finding', () => {
  it('searches every answer, word by word, whatever signs are in it', async () => {
    for (const one of ['lark@example.org', 'wren_100%@example.org', 'owl@elsewhere.example'])
      await answer(one);
    const found = async (q: string) =>
      (await list(`?q=${encodeURIComponent(q)}`)).map(({ person }) => person?.address).sort();
    expect(await found('LARK')).toEqual(['lark@example.org']);
    expect(await found('example.org')).toEqual(['lark@example.org', 'wren_100%@example.org']);
    expect(await found('_100%')).toEqual(['wren_100%@example.org']);
    expect(await found('%')).toEqual(['wren_100%@example.org']);
    expect(await found('owl elsewhere')).toEqual(['owl@elsewhere.example']);
    expect(await found("'; DROP TABLE lead; --")).toEqual([]);
  });

  it('filters, counts and goes on page by page without leaving one out', async () => {
    await server.db.query(
      `INSERT INTO lead (id, workspace_id, site_id, campaign_id, version, visitor, fields, page, submitted_at, search)
       SELECT gen_random_uuid(), $1, $2, $3, 1, gen_random_uuid(), '[]', '/', now() - (n / 3) * interval '1 minute', 'n' || n
         FROM generate_series(1, 250) AS n`,
      [owner.workspaceId, owner.siteId, campaign.id],
    );
    const ids: string[] = [];
    for (let next: string | null = ''; next !== null; ) {
      const page: AnswerPage = (
        await owner.ask('GET', site(`answers${next ? `?cursor=${encodeURIComponent(next)}` : ''}`))
      ).json();
      ids.push(...page.answers.map(({ id }) => id));
      next = page.next;
    }
    expect(new Set(ids).size).toBe(250);
    expect(ids).toHaveLength(250);
    expect((await counts()).found).toBe(250);
    expect((await counts('?consent=asked')).found).toBe(0);
    expect((await counts('?until=2020-01-01')).found).toBe(0);
    const { days } = await counts();
    expect(days).toHaveLength(28);
    expect(days.reduce((sum, { answers }) => sum + answers, 0)).toBe(250);
  });
});

it('answers are found by the form and the step they were given on', async () => {
  await answer('lark@example.org');
  const { forms } = await counts(`?campaign=${campaign.id}`);
  expect(forms).toEqual([{ form: 'sign-up', step: 'First', answers: 1 }]);
  expect(await list('?form=sign-up&step=First')).toHaveLength(1);
  expect(await list('?form=sign-up&step=Step%201')).toEqual([]);
  expect((await counts()).forms).toEqual([]);
});

describe('a person', () => {
  const personOf = async (): Promise<Person> =>
    (await owner.ask('GET', site(`people/${(await list())[0]?.person?.id}`))).json();

  it('shows everything they sent; what is corrected keeps what it was', async () => {
    await answer('lark@exmaple.org');
    const id = await answer('lark@exmaple.org');
    expect((await owner.ask('PATCH', site(`answers/${id}`), { values: ['nobody'] })).json().detail).toMatch(
      /name@example/,
    );
    expect(
      (await owner.ask('PATCH', site(`answers/${id}`), { values: ['lark@example.org'] })).statusCode,
    ).toBe(204);
    const person = await personOf();
    expect(person).toMatchObject({ address: 'lark@example.org', answers: [{ before: [{ by: 'Owner' }] }] });
    expect(person.answers[0]?.before[0]?.fields[0]?.value).toBe('lark@exmaple.org');
    expect(await list('?q=exmaple')).toHaveLength(1);
  });

  it('is erased without a trace but the numbers, and never written to again', async () => {
    await answer('merlin@example.org');
    await answer('merlin@example.org');
    await answer('wren@example.org');
    const person = (await list('?q=merlin'))[0]?.person;
    const before = await conversions();
    const receipt = await owner.ask('DELETE', site(`people/${person?.id}`));
    expect(receipt.json()).toMatchObject({ answers: 2, mails: 0 });
    expect(receipt.body).not.toContain('merlin');
    expect(await conversions()).toBe(before);
    const tables: { name: string }[] = await server.db.query(
      `SELECT table_name AS name FROM information_schema.tables WHERE table_schema = 'public' AND table_type = 'BASE TABLE'`,
    );
    for (const { name } of tables) {
      const rows: unknown[] = await server.db.query(
        `SELECT 1 FROM "${name}" t WHERE t::text ILIKE '%merlin@example%'`,
      );
      expect(rows, name).toEqual([]);
    }
    expect((await owner.ask('GET', site(`people/${person?.id}`))).statusCode).toBe(404);
    const { people } = server.services;
    expect(await people.isNeverWrittenTo(server.db.manager, owner.siteId, 'merlin@example.org')).toBe(true);
    expect(await people.isNeverWrittenTo(server.db.manager, owner.siteId, 'wren@example.org')).toBe(false);
  });

  it('is told everything as a file', async () => {
    await answer('lark@example.org');
    const { id } = await personOf();
    const file = await owner.ask('GET', site(`people/${id}/everything.json`));
    expect(file.headers['content-disposition']).toContain('attachment');
    expect(file.json()).toMatchObject({ address: 'lark@example.org', answers: [{ page: '/tours' }] });
  });

  it('is forgotten when the site keeps answers no longer', async () => {
    await answer('old@example.org');
    await server.db.query(`UPDATE lead SET submitted_at = now() - interval '31 days' WHERE site_id = $1`, [
      owner.siteId,
    ]);
    await answer('new@example.org');
    await owner.ask('PUT', site('kept-answers'), { days: 30 });
    await server.services.people.tidy(server.services.deliveries.forgetOld);
    expect((await list()).map(({ person }) => person?.address)).toEqual(['new@example.org']);
    expect(await everything()).toEqual([{ leads: 1, persons: 1 }]);
  });

  it('on a list of those not to be written to is taken in; lines that hold no address are named', async () => {
    const text =
      '\uFEFFaddress,why\r\nlark@example.org,asked\r\n"wren@Example.org"\r\n\r\nnot an address\r\nlark@example.org';
    expect((await owner.ask('POST', site('do-not-write'), { text })).json()).toEqual({
      added: 2,
      known: 0,
      faults: [{ line: 5, text: 'not an address' }],
    });
    expect((await owner.ask('POST', site('do-not-write'), { text })).json()).toMatchObject({
      added: 0,
      known: 2,
    });
  });
});

describe('who may see people', () => {
  it('a viewer sees counts alone, another workspace nothing', async () => {
    const id = await answer('lark@example.org');
    const person = (await list())[0]?.person?.id;
    const viewer = await addColleague(server, owner, 'viewer');
    expect((await viewer.ask('GET', site('answers/counts'))).json()).toMatchObject({ found: 1 });
    const other = await createWorkspace(server);
    for (const [method, path, body] of [
      ['GET', 'answers'],
      ['GET', 'answers.csv'],
      ['PATCH', `answers/${id}`, { values: ['x@example.org'] }],
      ['POST', 'answers/held', { ids: [id], verdict: 'throwAway' }],
      ['GET', `people/${person}`],
      ['GET', `people/${person}/everything.json`],
      ['DELETE', `people/${person}`],
      ['POST', 'do-not-write', { text: 'a@example.org' }],
      ['GET', 'people-notes'],
    ] as const) {
      expect((await viewer.ask(method, site(path), body)).statusCode, `viewer ${path}`).toBe(403);
      expect((await other.ask(method, site(path), body)).statusCode, `other ${path}`).toBe(404);
      expect(
        (await other.ask(method, `/sites/${other.siteId}/${path}`, body)).statusCode,
        `own site, other’s ${path}`,
      ).toBe(/^(answers|answers\.csv|answers\/held|do-not-write|people-notes)$/.test(path) ? 200 : 404);
    }
    expect((await other.ask('GET', site('answers/counts'))).statusCode).toBe(404);
    expect(await list()).toHaveLength(1);
  });
});
