import type { QueryRunner } from 'typeorm';
import { expect, test } from 'vitest';
import { createDataSource } from './orm.ts';

/** After which an earlier release, still serving, would ask or write in vain. */
const TAKES_AWAY = [
  /\bDROP\s+(?:TABLE|COLUMN|VIEW|FUNCTION)\b/i,
  /\bRENAME\s+(?:TO|COLUMN)\b/i,
  /\bALTER\s+(?:COLUMN\s+)?\w+\s+(?:(?:SET\s+DATA\s+)?TYPE|SET\s+NOT\s+NULL)\b/i,
  /\bADD\s+COLUMN\s+(?![^,;]*\b(?:DEFAULT|GENERATED)\b)[^,;]*\bNOT\s+NULL\b/i,
];
const takesAway = (sql: string): boolean => TAKES_AWAY.some((way) => way.test(sql));

/** All that a migration says to a database that holds nothing. */
async function statementsOf(up: (runner: QueryRunner) => Promise<unknown>): Promise<string> {
  const said: string[] = [];
  const query = async (sql: string) => {
    said.push(sql);
    return [];
  };
  await up({ query } as unknown as QueryRunner);
  return said.join(';\n');
}

test.each([
  ['DROP TABLE campaign_day, campaign_hour', true],
  ['ALTER TABLE event\n  DROP COLUMN part', true],
  ['ALTER TABLE lead RENAME COLUMN step TO part', true],
  ['ALTER TABLE lead RENAME TO answer', true],
  ['ALTER TABLE lead ALTER COLUMN step TYPE bigint', true],
  ['ALTER TABLE lead ALTER step SET NOT NULL', true],
  ['ALTER TABLE lead ADD COLUMN step text NOT NULL', true],
  ["ALTER TABLE lead ADD COLUMN step text NOT NULL DEFAULT ''", false],
  ['ALTER TABLE lead ADD COLUMN step text', false],
  ['ALTER TABLE lead ALTER COLUMN step DROP NOT NULL', false],
  ['ALTER TABLE campaign_move DROP CONSTRAINT a, ADD CONSTRAINT b CHECK (true)', false],
  ['DROP INDEX visitor_day_by_day', false],
])('%s takes something from an earlier release: %s', (sql, isTaking) => {
  expect(takesAway(sql)).toBe(isTaking);
});

test('but for four of old, a migration only adds: what it makes needless goes with the release after', async () => {
  const { migrations } = createDataSource('postgres://nowhere/none').options;
  const all = (migrations as (new () => { name: string; up(runner: QueryRunner): Promise<unknown> })[]).map(
    (Migration) => new Migration(),
  );
  const taking: string[] = [];
  for (const migration of all)
    if (takesAway(await statementsOf((runner) => migration.up(runner)))) taking.push(migration.name);
  expect(taking).toEqual([
    'RulesInFull1764000000002',
    'NothingTwice1764000000006',
    'Results1764000000010',
    'ResultsWithoutEvents1764000000033',
  ]);
});
