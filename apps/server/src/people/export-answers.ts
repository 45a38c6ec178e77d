import type { Answer } from '@velarium/contract';
import { stringify } from 'csv-stringify/sync';
import { harmless } from '../infra/harmless.ts';

export type ExportFormat = 'csv' | 'jsonl';

const HEADS = [
  'when',
  'campaign',
  'form',
  'step',
  'address',
  'state',
  'page',
  'device',
  'source',
  'country',
  'consent',
  'language',
  'answers',
];

const rowOf = (answer: Answer): string[] =>
  [
    answer.submittedAt,
    answer.campaignName,
    answer.form ?? '',
    answer.step ?? '',
    answer.person?.address ?? '',
    answer.person?.state ?? '',
    answer.page,
    answer.device ?? '',
    answer.referrer ?? '',
    answer.country ?? '',
    answer.consentText ?? '',
    answer.language ?? '',
    // Forms differ from campaign to campaign: each answer is a line of its own within one cell.
    answer.fields.map(({ label, value }) => `${label}: ${value}`).join('\n'),
  ].map(harmless);

const csvOf = (rows: readonly string[][]): string => stringify([...rows], { record_delimiter: '\r\n' });

/** What stands before the answers: of CSV the mark by which spreadsheets know UTF-8, and the heads. */
export const beginningOf = (format: ExportFormat): string =>
  format === 'csv' ? `\uFEFF${csvOf([HEADS])}` : '';

/** Answers as CSV (RFC 4180), or as JSON Lines: one object a line. */
export const answersAs = (format: ExportFormat, answers: readonly Answer[]): string =>
  format === 'csv'
    ? csvOf(answers.map(rowOf))
    : answers.map((answer) => `${JSON.stringify(answer)}\n`).join('');
