import { QueryRunnerAlreadyReleasedError, QueryRunnerProviderAlreadyReleasedError } from 'typeorm';
import { expect, test } from 'vitest';
import { databaseFault, isKnownKey } from './database-fault.ts';

const coded = (code: string) => Object.assign(new Error('x'), { code });

// Codes: PostgreSQL 15, appendix A; Node.js, common system errors.
test.each<[string, unknown, string | undefined]>([
  ['refused', coded('ECONNREFUSED'), 'away'],
  ['still starting up', coded('57P03'), 'away'],
  ['ended under us', coded('57P01'), 'away'],
  ['refused on every address', new AggregateError([coded('ECONNREFUSED')]), 'away'],
  ['lost within a transaction', new QueryRunnerAlreadyReleasedError(), 'away'],
  ['lost within a transaction, seen by the manager', new QueryRunnerProviderAlreadyReleasedError(), 'away'],
  ['lost while it was connecting', new Error('Connection terminated unexpectedly'), 'away'],
  ['a lock that was waited for too long', coded('55P03'), 'busy'],
  ['no connection of the pool', new Error('timeout exceeded when trying to connect'), 'busy'],
  ['a value that cannot be kept', coded('22P05'), 'value'],
  ['a rule that is broken', coded('23505'), undefined],
  ['a fault of ours', new TypeError('x is not a function'), undefined],
  ['no error at all', 'ECONNREFUSED', undefined],
])('%s', (_what, error, fault) => {
  expect(databaseFault(error)).toBe(fault);
});

test.each([
  ['a key that is there', coded('23505'), true],
  ['another rule that is broken', coded('23503'), false],
  ['no error at all', '23505', false],
])('%s', (_what, error, isKnown) => {
  expect(isKnownKey(error)).toBe(isKnown);
});
