import type { Manifest, ManifestCampaign } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { createPageIndex } from '../manifest/page-index.ts';
import { type Verdict, verdictSentence } from '../verdict/verdict.ts';
import { type Memory, newMemory, rememberConverted, rememberShown } from './memory.ts';
import { createPageView } from './page-view.ts';

const START_MS = Date.UTC(2026, 10, 25, 20);
const campaign = (id: string, change: Partial<ManifestCampaign> = {}): ManifestCampaign => ({
  id,
  version: 1,
  format: 'modal',
  message: 'f'.repeat(32),
  afterMs: 10_000,
  include: null,
  exclude: [],
  devices: 7,
  caps: [],
  afterClose: 'none',
  afterConversion: 'none',
  ...change,
});
const memory = newMemory({ visitor: () => 'v', session: () => 's' }, START_MS);
const at = (seconds: number) => ({ wallMs: START_MS + seconds * 1000, ticksMs: seconds * 1000 });

function begin(campaigns: ManifestCampaign[], { isVisible = true, href = 'https://s.example/a' } = {}) {
  const manifest: Manifest = {
    v: 1,
    site: { sessionMinutes: 30, breakpoints: { mobile: 768, tablet: 1024 }, trackingParameters: [] },
    campaigns,
  };
  return createPageView({
    manifest,
    index: createPageIndex(manifest),
    href,
    device: 'desktop',
    isVisible,
    now: at(0),
  });
}
const opens = (view: ReturnType<typeof begin>, seconds: number, seen: Memory = memory) =>
  view.next(seen, at(seconds)).open?.id;

describe('time on page', () => {
  it('opens at its second and not before', () => {
    const view = begin([campaign('a')]);
    expect(opens(view, 9.999)).toBeUndefined();
    expect(opens(view, 10)).toBe('a');
  });

  it('an empty delay is at once (common practice)', () => {
    expect(opens(begin([campaign('a', { afterMs: 0 })]), 0)).toBe('a');
  });

  it('stands still while the tab is hidden', () => {
    const view = begin([campaign('a')]);
    view.setVisible(false, at(4));
    expect(opens(view, 100)).toBeUndefined();
    view.setVisible(true, at(100));
    expect(opens(view, 105.9)).toBeUndefined();
    expect(opens(view, 106)).toBe('a');
  });

  it('does not open in a tab that was never seen', () => {
    expect(opens(begin([campaign('a', { afterMs: 0 })], { isVisible: false }), 60)).toBeUndefined();
  });

  it('tells how long until the next could open', () => {
    const view = begin([campaign('late', { afterMs: 30_000 }), campaign('soon', { afterMs: 8000 })]);
    expect(view.next(memory, at(3)).near.map(({ campaign: { id }, inMs }) => [id, inMs])).toEqual([
      ['soon', 5000],
      ['late', 27_000],
    ]);
  });
});

describe('once in a page view', () => {
  it('does not open again after it is gone', () => {
    const view = begin([campaign('a', { afterMs: 0 })]);
    view.onOpened('a');
    view.onGone('a');
    expect(opens(view, 50)).toBeUndefined();
    expect(view.verdicts(memory, at(50))).toEqual([{ code: 'blocked:page.view' }]);
  });

  it('one message at a time; the next follows when it is gone', () => {
    const view = begin([campaign('a', { afterMs: 0 }), campaign('b', { afterMs: 0 })]);
    view.onOpened('a');
    expect(opens(view, 1)).toBeUndefined();
    expect(view.verdicts(memory, at(1))).toEqual([
      { code: 'shown' },
      { code: 'waiting:message', openCampaign: 'a' },
    ]);
    view.onGone('a');
    expect(opens(view, 2)).toBe('b');
  });
});

describe('gates are asked in a fixed order', () => {
  const seen = rememberConverted(rememberShown(memory, { id: 'a', caps: [] }, START_MS), 'a', START_MS);
  const shown = rememberShown(memory, { id: 'a', caps: [] }, START_MS);
  const all: Partial<ManifestCampaign> = {
    devices: 4,
    afterConversion: 'ever',
    caps: [{ max: 1, per: 'ever' }],
  };
  it.each<[gate: string, change: Partial<ManifestCampaign>, seen: Memory, code: Verdict['code']]>([
    ['nowhere', { ...all, include: [] }, seen, 'blocked:page.nowhere'],
    ['another page', { ...all, include: ['/b'] }, seen, 'blocked:page.unmatched'],
    ['a page taken out', { ...all, exclude: ['/a'] }, seen, 'blocked:page.excluded'],
    ['device', all, seen, 'blocked:device'],
    ['conversion', { ...all, devices: 7 }, seen, 'blocked:cap.converted'],
    ['cap', { ...all, devices: 7 }, shown, 'blocked:cap.showings'],
    ['trigger', { ...all, devices: 7 }, memory, 'waiting:trigger'],
    ['nothing left', { ...all, devices: 7, afterMs: 0 }, memory, 'ready'],
  ])('%s', (_gate, change, remembered, code) => {
    expect(begin([campaign('a', change)]).verdicts(remembered, at(1))[0]?.code).toBe(code);
  });
});

it('every verdict has a sentence for people', () => {
  const write = (atMs: number) => new Date(atMs).toISOString();
  const verdicts: Verdict[] = [
    { code: 'blocked:page.nowhere' },
    { code: 'blocked:page.unmatched' },
    { code: 'blocked:page.excluded' },
    { code: 'blocked:device', device: 'mobile' },
    { code: 'blocked:cap.converted', retryAtMs: null },
    { code: 'blocked:cap.closed', retryAtMs: START_MS },
    { code: 'blocked:cap.showings', retryAtMs: START_MS },
    { code: 'blocked:page.view' },
    { code: 'waiting:trigger', remainingMs: 1234 },
    { code: 'waiting:message', openCampaign: 'x' },
    { code: 'ready' },
    { code: 'shown' },
  ];
  const sentences = verdicts.map((verdict) => verdictSentence(verdict, write));
  expect(new Set(sentences).size).toBe(verdicts.length);
  for (const sentence of sentences) expect(sentence).toMatch(/^[A-Z].*\.$/);
  expect(sentences[5]).toContain('again from 2026-11-25T20:00:00.000Z');
  expect(sentences[8]).toContain('1.3 s more');
});
