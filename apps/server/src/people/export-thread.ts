import { parentPort, workerData } from 'node:worker_threads';
import type { AnswerFilter, AnswerPage } from '@velarium/contract';
import pg from 'pg';
import { answersAs, beginningOf, type ExportFormat } from './export-answers.ts';
import { type AnswerScope, findAnswers } from './find-answers.ts';

/** What a thread is given to export. */
export interface ExportTask {
  readonly databaseUrl: string;
  readonly scope: AnswerScope;
  readonly filter: AnswerFilter;
  readonly format: ExportFormat;
}
/** What it says: a piece of the file with the answers in it so far; the last has no bytes. */
export interface ExportPiece {
  readonly bytes: Uint8Array | null;
  readonly count: number;
}

/** Answers read at once: forms can be long, and memory is to stay small whatever they hold. */
const READ_AT_ONCE = 200;
const STATEMENT_MS = 15_000;

/** Writes an export a piece at a time, each when it is asked for, on a thread that answers nobody. */
async function main(
  { databaseUrl, scope, filter, format }: ExportTask,
  port: NonNullable<typeof parentPort>,
) {
  const client = new pg.Client({
    connectionString: databaseUrl,
    statement_timeout: STATEMENT_MS,
    application_name: 'velarium export',
  });
  await client.connect();
  const manager = {
    query: async (text: string, values?: unknown[]) => (await client.query(text, values)).rows as never,
  };
  let count = 0;
  // Pieces that were asked for and not written yet, and who waits for one to be.
  let asked = 0;
  let wake = () => {};
  port.on('message', () => {
    asked++;
    wake();
  });
  const say = async (text: string | null) => {
    if (asked === 0)
      await new Promise<void>((resolve) => {
        wake = resolve;
      });
    asked--;
    port.postMessage({ bytes: text === null ? null : Buffer.from(text), count } satisfies ExportPiece);
  };
  const beginning = beginningOf(format);
  if (beginning !== '') await say(beginning);
  const read = (cursor: string | null) => findAnswers(manager, scope, filter, cursor, READ_AT_ONCE);
  for (let reading: ReturnType<typeof read> | null = read(null); reading; ) {
    const { answers, next }: AnswerPage = await reading;
    // The database finds the next while these are written and taken.
    reading = next === null ? null : read(next);
    count += answers.length;
    if (answers.length > 0) await say(answersAs(format, answers));
  }
  await say(null);
  await client.end();
  port.close();
}

if (parentPort) await main(workerData as ExportTask, parentPort);
