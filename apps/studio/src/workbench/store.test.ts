import type { Campaign } from '@velarium/contract';
import { startingDocument, TEMPLATES } from '@velarium/core';
import { describe, expect, it } from 'vitest';
import { createWorkbenchStore } from './store.ts';

const campaign: Campaign = {
  id: '00000000-0000-4000-8000-000000000001',
  siteId: '00000000-0000-4000-8000-000000000002',
  labels: [],
  note: '',
  name: 'Letter',
  state: 'draft',
  format: 'modal',
  anchor: 'center',
  closing: { afterSeconds: null, means: 'later' },
  rule: startingDocument(TEMPLATES[0] as (typeof TEMPLATES)[0]).rule,
  variants: [],
  document: startingDocument(TEMPLATES[0] as (typeof TEMPLATES)[0]),
  revision: 3,
  hasUnpublishedChanges: false,
  publishedAt: null,
  plannedAt: null,
  awaits: false,
  nextChangeAt: null,
  endsAt: null,
  updatedAt: '2026-11-25T12:00:00.000Z',
  numbers: { showings: 0, visitors: 0, conversions: 0, converters: 0 },
  miniature: { width: 0.4, ground: '#ffffff', ink: '#000000', accent: '#234a6d', hasVeil: true, rows: [] },
  shownLately: 0,
  givenUp: 0,
};

function begin() {
  let nowMs = 0;
  const store = createWorkbenchStore(campaign, { now: () => nowMs });
  return {
    store,
    state: () => store.getState(),
    pass: (ms: number) => {
      nowMs += ms;
    },
    seconds: (seconds: number, key = 'seconds') =>
      store
        .getState()
        .editMessage((message) => ({ ...message, close: { ...message.close, afterSeconds: seconds } }), key),
  };
}

describe('undo and redo', () => {
  it('go back and forth through every edit', () => {
    const { state, seconds, pass } = begin();
    for (const one of [300, 400, 500]) {
      seconds(one);
      pass(2000);
    }
    state().undo();
    expect(state().document.message.close.afterSeconds).toBe(400);
    state().undo();
    state().undo();
    expect(state().document).toBe(campaign.document);
    state().undo();
    expect(state().document).toBe(campaign.document);
    for (let n = 0; n < 4; n++) state().redo();
    expect(state().document.message.close.afterSeconds).toBe(500);
  });

  it('take a word typed or a mark dragged as one step', () => {
    const { state, seconds, pass } = begin();
    for (const one of [300, 301, 302]) {
      seconds(one);
      pass(100);
    }
    state().undo();
    expect(state().document).toBe(campaign.document);
  });

  it('keep edits of different things apart, however quick', () => {
    const { state, seconds } = begin();
    seconds(300);
    seconds(400, 'other');
    state().undo();
    expect(state().document.message.close.afterSeconds).toBe(300);
  });

  it('begin a new step after an undo', () => {
    const { state, seconds } = begin();
    seconds(300);
    state().undo();
    seconds(400);
    state().undo();
    expect(state().document).toBe(campaign.document);
    expect(state().future).toHaveLength(1);
  });

  it('an edit that changes nothing is none', () => {
    const { state } = begin();
    state().editMessage((message) => message, 'x');
    state().editRule((rule) => rule, 'x');
    expect(state()).toMatchObject({ status: 'saved', past: [] });
    expect(state().document).toBe(campaign.document);
  });

  it('a field that is left and says once more what it holds is no edit, and takes no redo away', () => {
    const { state, seconds, pass } = begin();
    seconds(300);
    pass(5000);
    seconds(300);
    expect(state().past).toHaveLength(1);
    state().undo();
    state().editMessage((message) => ({ ...message, close: { ...message.close } }), 'seconds');
    state().redo();
    expect(state().document.message.close.afterSeconds).toBe(300);
  });
});

it('a viewer’s edits change nothing', () => {
  const store = createWorkbenchStore(campaign, { canEdit: false });
  store
    .getState()
    .editMessage((message) => ({ ...message, close: { ...message.close, afterSeconds: 300 } }), 'seconds');
  expect(store.getState()).toMatchObject({ document: campaign.document, status: 'saved', past: [] });
});

describe('saving', () => {
  it('what was typed on while saving is still unsaved', () => {
    const { state, seconds } = begin();
    seconds(300);
    const sent = state().document;
    seconds(301);
    state().markSaved(sent, 4);
    expect(state()).toMatchObject({ status: 'unsaved', revision: 4 });
    state().markSaved(state().document, 5);
    expect(state().status).toBe('saved');
  });

  it('taking their version keeps one’s own within reach of undo', () => {
    const { state, seconds } = begin();
    seconds(300);
    const mine = state().document;
    state().takeTheirs({ ...campaign, revision: 9 });
    expect(state()).toMatchObject({ document: campaign.document, revision: 9, status: 'saved' });
    state().undo();
    expect(state().document).toBe(mine);
  });

  it('what was changed here stays known as such, while others save on top of it', () => {
    const { state, seconds } = begin();
    seconds(300);
    const mine = state().document;
    const theirs = {
      ...mine,
      message: { ...mine.message, close: { ...mine.message.close, word: 'Not now' } },
    };
    state().takeTheirs({ ...campaign, document: theirs, revision: 9 });
    const before = campaign.document.message.close.afterSeconds;
    expect(state().groundDocument.message.close).toMatchObject({ afterSeconds: before, word: 'Not now' });
    // Now they replace it: that was decided, and is the ground.
    state().takeTheirs({ ...campaign, revision: 10 });
    expect(state().groundDocument).toEqual(campaign.document);
  });
});
