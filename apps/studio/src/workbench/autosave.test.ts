// @vitest-environment jsdom
import type { Campaign, CampaignDocument } from '@velarium/contract';
import { startingDocument, TEMPLATES } from '@velarium/core';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { ApiProblem } from '../api/client.ts';
import { type SaveDraft, startAutosave } from './autosave.ts';
import { createWorkbenchStore } from './store.ts';

const document = startingDocument(TEMPLATES[0] as (typeof TEMPLATES)[0]);
const campaign = {
  id: 'c',
  siteId: 's',
  name: 'n',
  state: 'draft',
  document,
  revision: 0,
} as unknown as Campaign;

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

function begin(save: (revision: number, document: CampaignDocument) => Promise<number>) {
  const store = createWorkbenchStore(campaign);
  const calls: number[] = [];
  const saving: SaveDraft = async (_id, revision, sent) => {
    calls.push(revision);
    return { ...campaign, document: sent, revision: await save(revision, sent) };
  };
  const autosave = startAutosave(store, saving);
  const type = (seconds: number) =>
    store
      .getState()
      .editMessage(
        (message) => ({ ...message, close: { ...message.close, afterSeconds: seconds } }),
        `k${seconds}`,
      );
  return { store, autosave, calls, type, status: () => store.getState().status };
}

it('saves once, a moment after the last edit', async () => {
  const { calls, type, status, autosave } = begin(async (revision) => revision + 1);
  type(300);
  await vi.advanceTimersByTimeAsync(400);
  type(301);
  await vi.advanceTimersByTimeAsync(400);
  expect(calls).toEqual([]);
  expect(status()).toBe('unsaved');
  await vi.advanceTimersByTimeAsync(200);
  expect(calls).toEqual([0]);
  expect(status()).toBe('saved');
  autosave.stop();
});

it('saves what was typed during a save in a second one, on the new revision', async () => {
  let finish = () => {};
  const { calls, type, status, autosave } = begin(
    (revision) =>
      new Promise((resolve) => {
        finish = () => resolve(revision + 1);
      }),
  );
  type(300);
  await vi.advanceTimersByTimeAsync(600);
  type(301);
  finish();
  await vi.advanceTimersByTimeAsync(0);
  expect(calls).toEqual([0, 1]);
  finish();
  await vi.advanceTimersByTimeAsync(0);
  expect(status()).toBe('saved');
  autosave.stop();
});

it('tries again while the server cannot be reached, and loses nothing', async () => {
  let isDown = true;
  const { calls, type, status, autosave, store } = begin(async (revision) => {
    if (isDown) throw new TypeError('fetch failed');
    return revision + 1;
  });
  type(300);
  await vi.advanceTimersByTimeAsync(600);
  expect(status()).toBe('waiting');
  isDown = false;
  await vi.advanceTimersByTimeAsync(3000);
  expect(status()).toBe('saved');
  expect(calls).toEqual([0, 0]);
  expect(store.getState().document.message.close.afterSeconds).toBe(300);
  autosave.stop();
});

it('sends again what had no answer as it was, before what has been typed since', async () => {
  const sent: unknown[] = [];
  let isAnswerLost = true;
  const { calls, type, status, autosave } = begin(async (revision, { message }) => {
    sent.push(message.close.afterSeconds);
    if (!isAnswerLost) return revision + 1;
    throw new TypeError('the answer was lost');
  });
  type(300);
  await vi.advanceTimersByTimeAsync(600);
  type(301);
  isAnswerLost = false;
  await vi.advanceTimersByTimeAsync(3000);
  expect(status()).toBe('saved');
  expect([calls, sent]).toEqual([
    [0, 0, 1],
    [300, 300, 301],
  ]);
  autosave.stop();
});

it('stops at a newer revision until somebody has decided', async () => {
  const problem = { type: '', title: '', status: 409, detail: '', code: 'newer-revision' };
  const { calls, type, status, autosave } = begin(async () => {
    throw new ApiProblem(problem);
  });
  type(300);
  await vi.advanceTimersByTimeAsync(600);
  type(301);
  await vi.advanceTimersByTimeAsync(10_000);
  expect(status()).toBe('conflict');
  expect(calls).toEqual([0]);
  autosave.stop();
});

it('does not send again what the server has refused, and tries the next edit', async () => {
  let isRefusing = true;
  const { calls, type, status, autosave } = begin(async (revision) => {
    if (isRefusing)
      throw new ApiProblem({ type: '', title: '', status: 422, detail: '', code: 'invalid-input' });
    return revision + 1;
  });
  type(300);
  await vi.advanceTimersByTimeAsync(10_000);
  expect([status(), calls]).toEqual(['refused', [0]]);
  isRefusing = false;
  type(301);
  await vi.advanceTimersByTimeAsync(600);
  expect([status(), calls]).toEqual(['saved', [0, 0]]);
  autosave.stop();
});

it('flushing waits until everything is saved and says when it cannot be', async () => {
  let isDown = false;
  const { type, status, autosave } = begin(async (revision) => {
    if (isDown) throw new TypeError('fetch failed');
    return revision + 1;
  });
  type(300);
  await autosave.flush();
  expect(status()).toBe('saved');
  isDown = true;
  type(301);
  await expect(autosave.flush()).rejects.toThrow('fetch failed');
  autosave.stop();
});
