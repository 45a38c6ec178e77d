import { Readable } from 'node:stream';
import { Worker } from 'node:worker_threads';
import { ProblemError } from '../infra/problem.ts';
import type { ExportPiece, ExportTask } from './export-thread.ts';

/** Exports under way at once in a process; each holds a thread and a connection. */
const MOST = 3;
/** What a thread's heap may come to: it is collected before it grows, however many answers go through. */
const LIMITS = { maxOldGenerationSizeMb: 20, maxYoungGenerationSizeMb: 4 } as const;

/** Beside the built server lies the built thread, which a server run from its sources takes too. */
const THREAD = new URL(
  import.meta.url.endsWith('.js') ? './export-thread.js' : '../../dist/export-thread.js',
  import.meta.url,
);

let underWay = 0;

/**
 * A file of answers, written by a thread of its own a piece at a time as fast as it is taken; whoever stops taking it
 * stops it.
 *
 * @param onDone Told how many answers it held, once all of it was taken.
 * @throws {ProblemError} 429 While as many as a process does at once are under way.
 */
export function exportInThread(task: ExportTask, onDone: (count: number) => Promise<unknown>): Readable {
  if (underWay >= MOST)
    throw new ProblemError(
      429,
      'exports-under-way',
      'Other files are being written',
      `${MOST} files of answers are being written already. Take this one when one of them is done.`,
    );
  underWay++;
  const thread = new Worker(THREAD, { workerData: task, resourceLimits: LIMITS });
  const file = new Readable({
    read: () => thread.postMessage('more'),
    destroy(error, done) {
      underWay--;
      thread.terminate().then(
        () => done(error),
        () => done(error),
      );
    },
  });
  thread.on('message', ({ bytes, count }: ExportPiece) => {
    if (bytes !== null) file.push(bytes);
    else
      onDone(count).then(
        () => file.push(null),
        (error) => file.destroy(error),
      );
  });
  thread.on('error', (error) => file.destroy(error));
  return file;
}
