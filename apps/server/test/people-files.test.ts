import { gunzipSync } from 'node:zlib';
import type { Answer, AnswerPage } from '@velarium/contract';
import { parse } from 'csv-parse/sync';
import { describe, expect, it } from 'vitest';
import { answer, list, owner, server, sharesAnswering, site } from './answering.ts';
import { addColleague, createWorkspace } from './server.ts';

sharesAnswering();

describe('an export', () => {
  const HOSTILE = ['=HYPERLINK("http://x")', '+1', '-2', '@SUM(A1)', 'a,"b"\r\nc'];
  it('is RFC 4180 that another reader reads back, with formulas made harmless', async () => {
    const id = await answer('lark@example.org');
    await server.db.query('UPDATE lead SET page = $2, fields = $3 WHERE id = $1', [
      id,
      '=cmd()',
      JSON.stringify(HOSTILE.map((value, n) => ({ label: `F${n}`, value }))),
    ]);
    const file = await owner.ask('GET', site('answers.csv'));
    expect(file.headers['content-type']).toMatch(/^text\/csv/);
    const [row] = parse(file.body, { columns: true, bom: true }) as Record<string, string>[];
    expect(row?.page).toBe("'=cmd()");
    expect(row?.answers).toBe(HOSTILE.map((value, n) => `F${n}: ${value}`).join('\n'));
    expect(row?.address).toBe('lark@example.org');
    const lines = (await owner.ask('GET', site('answers.jsonl'))).body.trim().split('\n');
    expect(lines.map((line) => JSON.parse(line).id)).toEqual([id]);
    const notes = (await owner.ask('GET', site('people-notes'))).json();
    expect(notes.map(({ what, by, count }: never) => [what, by, count])).toEqual([
      ['exported', 'Owner', 1],
      ['exported', 'Owner', 1],
    ]);
  });
});

it.each<[accepts: string, encoding: string | undefined, read: (bytes: Buffer) => Buffer]>([
  ['gzip, deflate, br', 'gzip', gunzipSync],
  ['identity', undefined, (bytes) => bytes],
  ['gzip;q=0', undefined, (bytes) => bytes],
])('is written as “%s” asks for it, and is the same file', async (accepts, encoding, read) => {
  // More than one read of the database, and more than is left alone on its way.
  const [id] = [await answer('lark@example.org'), await answer('wren@example.org')];
  await server.db.query(
    `INSERT INTO lead (id, workspace_id, site_id, campaign_id, version, visitor, fields, page, submitted_at)
     SELECT gen_random_uuid(), workspace_id, site_id, campaign_id, version, visitor, fields, '/page-' || n, submitted_at - n * interval '1 ms'
       FROM lead, generate_series(1, 400) AS n WHERE id = $1`,
    [id],
  );
  const file = await owner.ask('GET', site('answers.csv'), undefined, { 'accept-encoding': accepts });
  expect(file.headers['content-encoding']).toBe(encoding);
  const text = read(file.rawPayload).toString();
  const rows = parse(text, { columns: true, bom: true }) as Record<string, string>[];
  expect(rows).toHaveLength(402);
  expect(new Set(rows.map(({ page }) => page)).size).toBe(401);
  expect(rows.map(({ when }) => when)).toEqual(
    rows
      .map(({ when }) => when)
      .sort()
      .reverse(),
  );
});

it('says how many it will hold, is stopped by whoever stops taking it, and only so many are written at once', async () => {
  for (const one of ['lark', 'wren', 'owl']) await answer(`${one}@example.org`);
  const file = await owner.ask('GET', site('answers.csv?q=wren'));
  expect(file.headers['velarium-answers']).toBe('1');
  const { people } = server.services;
  const take = () =>
    people.export(
      { workspaceId: owner.workspaceId, name: 'Owner' },
      owner.siteId,
      { q: '', isHeld: 'no' },
      'jsonl',
      false,
    );
  const taken = await Promise.all([take(), take(), take()]);
  await expect(take()).rejects.toMatchObject({ status: 429 });
  for (const one of taken) one.destroy();
  const again = await take();
  let text = '';
  for await (const piece of again) text += piece;
  expect(text.trim().split('\n')).toHaveLength(3);
  // Noted is what was taken to the end.
  const notes = (await owner.ask('GET', site('people-notes'))).json();
  expect(notes.map(({ count }: { count: number }) => count)).toEqual([3, 1]);
});

describe('a key for other programs', () => {
  const make = async (siteId: string | null) =>
    (await owner.ask('POST', '/tokens', { name: 'Night export', siteId })).json();
  const askWith = (secret: string, url: string, method: 'GET' | 'DELETE' | 'PATCH' = 'GET') =>
    server.studio.inject({ method, url: `/api${url}`, headers: { authorization: `Bearer ${secret}` } });

  it('reads answers and people with a cursor, is kept as a hash, says when it was used, and can be taken back', async () => {
    for (const one of ['lark', 'wren']) await answer(`${one}@example.org`);
    const { secret, token } = await make(null);
    expect(secret).toMatch(/^velarium_[A-Za-z0-9_-]{32}$/);
    expect((await owner.ask('GET', '/tokens')).body).not.toContain(secret);
    const read = await askWith(secret, site('answers'));
    expect(read.json<AnswerPage>().answers).toHaveLength(2);
    const id = read.json<AnswerPage>().answers[0]?.person?.id;
    expect((await askWith(secret, site(`people/${id}`))).statusCode).toBe(200);
    expect((await askWith(secret, site('answers.jsonl'))).body.trim().split('\n')).toHaveLength(2);
    expect((await owner.ask('GET', site('people-notes'))).json()[0].by).toBe('the key “Night export”');
    expect((await owner.ask('GET', '/tokens')).json()[0].lastUsedAt).not.toBeNull();
    expect((await owner.ask('DELETE', `/tokens/${token.id}`)).statusCode).toBe(204);
    expect((await askWith(secret, site('answers'))).statusCode).toBe(401);
  });

  it('opens nothing else: no change, no other route, no other site, no other workspace', async () => {
    const id = await answer('lark@example.org');
    const { secret } = await make(owner.siteId);
    expect((await askWith(secret, site(`answers/${id}`), 'PATCH')).statusCode).toBe(403);
    const { person } = (await list())[0] as Answer;
    expect((await askWith(secret, site(`people/${person?.id}`), 'DELETE')).statusCode).toBe(403);
    for (const url of ['/members', '/sites', site('deliveries'), site('campaigns'), '/tokens', '/session'])
      expect((await askWith(secret, url)).statusCode, url).toBe(403);
    const other = await createWorkspace(server);
    expect((await askWith(secret, `/sites/${other.siteId}/answers`)).statusCode).toBe(403);
    const { secret: whole } = await make(null);
    expect((await askWith(whole, `/sites/${other.siteId}/answers`)).statusCode).toBe(404);
    expect((await owner.ask('POST', '/tokens', { name: 'x', siteId: other.siteId })).statusCode).toBe(404);
    for (const wrong of ['', 'velarium_', `velarium_${'a'.repeat(32)}`, 'x'])
      expect((await askWith(wrong, site('answers'))).statusCode, wrong).toBe(401);
    const editor = await addColleague(server, owner, 'editor');
    expect((await editor.ask('GET', '/tokens')).statusCode).toBe(403);
  });
});
