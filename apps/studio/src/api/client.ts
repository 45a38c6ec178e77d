import type { Problem } from '@velarium/contract';
import { ToldError } from '../ui/told-error.ts';

/** A refusal of the server, in its own words. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** What answered is not Velarium: a proxy whose server is away, or a network that wants its own page looked at first. */
class ForeignAnswer extends Error {
  constructor(readonly status: number) {
    super(`expected an answer of Velarium, got one of status ${status} that is none`);
  }
}

let csrfToken = '';
/** Set by whoever reads the session; sent with everything that changes something. */
export function rememberCsrfToken(token: string): void {
  csrfToken = token;
}

/** An answer that has not begun by then does not come: that is said, rather than waited for in silence. */
const PATIENCE_MS = 30_000;
/** The same of what changes something, of which some reads pages of a site first. */
const PATIENCE_OF_CHANGES_MS = 120_000;
/** A file is as long under way as its line makes it; an hour is no line. */
const PATIENCE_OF_FILES_MS = 3_600_000;

/** How long the whole answer takes, once it has begun, is a matter of the line. */
async function patiently(path: string, init: RequestInit, patienceMs: number): Promise<Response> {
  const patience = new AbortController();
  const timer = setTimeout(() => patience.abort(new DOMException(path, 'TimeoutError')), patienceMs);
  try {
    return await fetch(`/api${path}`, { ...init, signal: patience.signal });
  } finally {
    clearTimeout(timer);
  }
}
const ask = (path: string, headers: HeadersInit = {}): Promise<Response> =>
  patiently(path, { headers }, PATIENCE_MS);

/**
 * @throws {ApiProblem} When the server refuses. @throws {TypeError} When it cannot be reached.
 * @throws {ForeignAnswer} When something else answers in its place.
 * @throws {DOMException} `TimeoutError` when it does not answer; what was to be changed may be so all the same.
 */
export const request = <Result>(method: string, path: string, body?: unknown): Promise<Result> =>
  method === 'GET'
    ? ask(path).then((response) => read<Result>(response))
    : change<Result>(
        path,
        {
          method,
          headers: body === undefined ? {} : { 'content-type': 'application/json' },
          ...(body === undefined ? {} : { body: JSON.stringify(body) }),
        },
        PATIENCE_OF_CHANGES_MS,
      );

/** What was answered last to what is asked every few seconds, and its ETag. */
const latest = new Map<string, { readonly etag: string; readonly value: unknown }>();

/**
 * Asks for what is asked for every few seconds: while it is the same the server says so in a word (RFC 9110, 13.1.2), and
 * what was answered last is given again. Fails like {@link request}.
 */
export async function poll<Result>(path: string): Promise<Result> {
  const known = latest.get(path);
  const response = await ask(path, known ? { 'if-none-match': known.etag } : {});
  if (known && response.status === 304) return known.value as Result;
  const value = await read<Result>(response);
  const etag = response.headers.get('etag');
  if (etag) latest.set(path, { etag, value });
  return value;
}

/** Sends one file as a form would, however long that takes. Fails like {@link request}. */
export function sendFile<Result>(path: string, file: File): Promise<Result> {
  const body = new FormData();
  body.append('file', file);
  return change<Result>(path, { method: 'POST', body }, PATIENCE_OF_FILES_MS);
}

async function change<Result>(path: string, init: RequestInit, patienceMs: number): Promise<Result> {
  const headers = { ...init.headers, 'x-csrf-token': csrfToken };
  return read<Result>(await patiently(path, { ...init, headers }, patienceMs));
}

async function read<Result>(response: Response): Promise<Result> {
  if (response.status === 204) return undefined as Result;
  if (!response.ok) throw await problemOf(response);
  return (await jsonOf(response)) as Result;
}

async function jsonOf(response: Response): Promise<unknown> {
  const text = await response.text();
  try {
    return JSON.parse(text);
  } catch {
    throw new ForeignAnswer(response.status);
  }
}

const isProblem = (body: unknown): body is Problem => {
  const { title, detail, code } = (body ?? {}) as Readonly<Record<string, unknown>>;
  return [title, detail, code].every((one) => typeof one === 'string');
};

/** What is wrong, of an answer that refuses. */
export async function problemOf(response: Response): Promise<Error> {
  const body = await jsonOf(response).catch(() => undefined);
  return isProblem(body) ? new ApiProblem(body) : new ForeignAnswer(response.status);
}

/** Whether what was asked for is not there, or no longer. */
export const isGone = (error: unknown): boolean =>
  error instanceof ApiProblem && error.problem.status === 404;

/** What went wrong and how to mend it, for any error. */
export function problemWords(error: unknown): { title: string; detail: string } {
  if (error instanceof ApiProblem) return { title: error.problem.title, detail: error.problem.detail };
  if (error instanceof ToldError) return { title: error.title, detail: error.message };
  if (error instanceof ForeignAnswer) {
    return {
      title: 'The server cannot be reached',
      detail: `Something on the way to it has answered in its place (status ${error.status}). Try again in a moment; what you made is kept here meanwhile.`,
    };
  }
  if (error instanceof TypeError) {
    return {
      title: 'The server cannot be reached',
      detail: 'Check the connection; what you made is kept here meanwhile.',
    };
  }
  if (error instanceof DOMException && error.name === 'TimeoutError') {
    return {
      title: 'The server does not answer',
      detail:
        'Try again. Where something was to be changed look first whether it has been; what you made is kept here meanwhile.',
    };
  }
  return { title: 'Something went wrong here', detail: 'Reload the page and try again.' };
}
