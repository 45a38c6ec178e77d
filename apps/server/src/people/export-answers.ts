import { Readable } from 'node:stream';
import type { Answer } from '@velarium/contract';
import { stringify } from 'csv-stringify/sync';

/** A text that a spreadsheet would take for a formula is made one that it does not. Source: OWASP, CSV injection. */
const harmless = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);

const HEADS = [
  'when',
  'campaign',
  'address',
  'state',
  'page',
  'device',
  'source',
  'country',
  'consent',
  'answers',
];

const rowOf = (answer: Answer): string[] =>
  [
    answer.submittedAt,
    answer.campaignName,
    answer.person?.address ?? '',
    answer.person?.state ?? '',
    answer.page,
    answer.device ?? '',
    answer.referrer ?? '',
    answer.country ?? '',
    answer.consentText ?? '',
    // Forms differ from campaign to campaign: each answer is a line of its own within one cell.
    answer.fields.map(({ label, value }) => `${label}: ${value}`).join('\n'),
  ].map(harmless);

/** Answers as CSV (RFC 4180), in UTF-8 with the mark by which spreadsheets know it. */
export function answersToCsv(pages: AsyncGenerator<readonly Answer[]>): Readable {
  return Readable.from(
    (async function* () {
      yield `\uFEFF${stringify([HEADS], { record_delimiter: '\r\n' })}`;
      for await (const answers of pages) yield stringify(answers.map(rowOf), { record_delimiter: '\r\n' });
    })(),
  );
}

/** Answers as JSON Lines: one object a line. */
export function answersToLines(pages: AsyncGenerator<readonly Answer[]>): Readable {
  return Readable.from(
    (async function* () {
      for await (const answers of pages)
        yield answers.map((answer) => `${JSON.stringify(answer)}\n`).join('');
    })(),
  );
}
