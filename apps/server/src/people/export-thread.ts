import { pipeline, Readable } from 'node:stream';
import { parentPort, workerData } from 'node:worker_threads';
import { constants, createGzip } from 'node:zlib';
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
  /** With gzip (RFC 1952). */
  readonly isCompressed: boolean;
}
/** What it says: a piece of the file with the answers in it so far; the last has no bytes. */
export interface ExportPiece {
  readonly bytes: Uint8Array | null;
  readonly count: number;
}

/** Answers read at once: as many as make a piece of about this size, since forms can be long and memory is to stay small. */
const PIECE_CHARACTERS = 30_000;
const [FEWEST_AT_ONCE, MOST_AT_ONCE] = [50, 1000];
const STATEMENT_MS = 15_000;

/** The file, a piece after another. */
async function* write(
  client: pg.Client,
  { scope, filter, format }: ExportTask,
  counted: (more: number) => void,
) {
  const manager = {
    query: async (text: string, values?: unknown[]) => (await client.query(text, values)).rows as never,
  };
  const beginning = beginningOf(format);
  if (beginning !== '') yield beginning;
  let atOnce = FEWEST_AT_ONCE;
  const read = (cursor: string | null) => findAnswers(manager, scope, filter, cursor, atOnce);
  for (let reading: ReturnType<typeof read> | null = read(null); reading; ) {
    const { answers, next }: AnswerPage = await reading;
    // The database finds the next while these are written and taken.
    reading = next === null ? null : read(next);
    if (answers.length === 0) continue;
    const piece = answersAs(format, answers);
    const fitting = Math.floor((PIECE_CHARACTERS * answers.length) / piece.length);
    atOnce = Math.max(FEWEST_AT_ONCE, Math.min(MOST_AT_ONCE, fitting));
    counted(answers.length);
    yield piece;
  }
}

/**
 * Writes an export a piece at a time, each when it is asked for, on a thread that answers nobody. It is compressed here too: what
 * a thread hands over lies beside the heap of the one that takes it until that is collected, so it had better be little.
 */
async function main(task: ExportTask, port: NonNullable<typeof parentPort>) {
  const client = new pg.Client({
    connectionString: task.databaseUrl,
    statement_timeout: STATEMENT_MS,
    application_name: 'velarium export',
  });
  await client.connect();
  let count = 0;
  // Pieces that were asked for and not written yet, and who waits for one to be.
  let asked = 0;
  let wake = () => {};
  port.on('message', () => {
    asked++;
    wake();
  });
  const say = async (bytes: Uint8Array | null) => {
    if (asked === 0)
      await new Promise<void>((resolve) => {
        wake = resolve;
      });
    asked--;
    port.postMessage({ bytes, count } satisfies ExportPiece);
  };
  const file = Readable.from(
    write(client, task, (more) => {
      count += more;
    }),
    { objectMode: false },
  );
  // Whoever reads the last of them hears of what goes wrong in either.
  const pieces = task.isCompressed
    ? pipeline(file, createGzip({ level: constants.Z_BEST_SPEED }), () => {})
    : file;
  for await (const piece of pieces) await say(piece);
  await say(null);
  await client.end();
  port.close();
}

if (parentPort) await main(workerData as ExportTask, parentPort);
