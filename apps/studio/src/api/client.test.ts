import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { problemWords, request } from './client.ts';

const PROBLEM = { type: 'about:blank', title: 'It rests', status: 409, detail: 'Run it.', code: 'resting' };
const answers = (body: BodyInit | null, status: number, type = 'application/problem+json') =>
  vi.stubGlobal('fetch', async () => new Response(body, { status, headers: { 'content-type': type } }));
const wordsOf = async (asked: Promise<unknown>) =>
  problemWords(
    await asked.then(
      () => expect.unreachable(),
      (error) => error,
    ),
  );
afterEach(() => vi.unstubAllGlobals());

describe('what answers', () => {
  it('in Velarium’s own words is told in them', async () => {
    answers(JSON.stringify(PROBLEM), 409);
    expect(await wordsOf(request('GET', '/sites'))).toEqual({ title: 'It rests', detail: 'Run it.' });
  });

  it.each([
    ['a proxy whose server is away', '<h1>Bad gateway</h1>', 502, 'text/html'],
    ['a proxy that says so in JSON', '{"message":"no server"}', 503, 'application/json'],
    ['a refusal without a word', '', 413, 'application/json'],
    ['a network that wants to be signed in to', '<h1>Welcome</h1>', 200, 'text/html'],
    ['an answer that was cut off', '{"id":', 200, 'application/json'],
  ])('in its place is told as that: %s', async (_, body, status, type) => {
    answers(body, status, type);
    for (const method of ['GET', 'PUT']) {
      const { title, detail } = await wordsOf(request(method, '/sites'));
      expect(title).toBe('The server cannot be reached');
      expect(detail).toContain(`(status ${status})`);
    }
  });
});

describe('what does not answer', () => {
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal(
      'fetch',
      (_: string, { signal }: RequestInit) =>
        new Promise((_resolve, reject) =>
          signal?.addEventListener('abort', () => reject(signal.reason as Error)),
        ),
    );
  });
  afterEach(() => vi.useRealTimers());

  it.each([
    ['GET', 30],
    ['PUT', 120],
  ])('is given up, asked by %s, after %i seconds', async (method, seconds) => {
    const asked = wordsOf(request(method, '/sites'));
    let isOver = false;
    void asked.then(() => {
      isOver = true;
    });
    await vi.advanceTimersByTimeAsync(seconds * 1000 - 1);
    expect(isOver).toBe(false);
    await vi.advanceTimersByTimeAsync(1);
    expect((await asked).title).toBe('The server does not answer');
  });
});
