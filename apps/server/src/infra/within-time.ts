import { createContext, Script } from 'node:vm';

const context = createContext({ run: undefined as (() => unknown) | undefined });
const script = new Script('run()');

/**
 * Runs what may never come to its end, such as a library over what somebody brought: past its time it is broken off, wherever it
 * is. Nothing else runs meanwhile, so the time is short.
 *
 * @throws {Error} One that {@link isOverTime} knows when it was broken off, and whatever it throws itself.
 */
export function withinTime<Result>(milliseconds: number, run: () => Result): Result {
  context.run = run;
  try {
    return script.runInContext(context, { timeout: Math.max(1, Math.ceil(milliseconds)) }) as Result;
  } finally {
    context.run = undefined;
  }
}

export const isOverTime = (error: unknown): boolean =>
  (error as NodeJS.ErrnoException).code === 'ERR_SCRIPT_EXECUTION_TIMEOUT';
