import type { DataSource } from 'typeorm';
import { expect, it } from 'vitest';
import { createReader } from './reader.ts';

const answering = (...answers: object[]) => {
  let at = 0;
  return {
    async query() {
      const answer = answers[Math.min(at++, answers.length - 1)];
      if (answer instanceof Error) throw answer;
      return [answer];
    },
  } as unknown as DataSource;
};
const primary = () => answering({ at: '0/1000' });

it('what is asked after a write is read from a standby only once that has it too', async () => {
  const [db, standby] = [primary(), answering({ isThere: false }, { isThere: false }, { isThere: true })];
  expect(await createReader(db, standby).current()).toBe(standby);
});
it.each([
  ['lies behind for long', answering({ isThere: false })],
  ['has taken the place of the database, and replays nothing', answering({ isThere: null })],
  ['is away', answering(new Error('ECONNREFUSED'))],
])('a standby that %s is passed over', async (_, standby) => {
  const db = primary();
  expect(await createReader(db, standby).current()).toBe(db);
});
it('without one the database itself is read, and asked nothing', async () => {
  const db = answering(new Error('asked'));
  expect(await createReader(db).current()).toBe(db);
});
