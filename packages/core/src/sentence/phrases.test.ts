import type { CampaignDocument, Rule } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { plainMessage, plainRule } from '../testing/arbitrary.ts';
import { documentSentence, sentenceText } from './rule-sentence.ts';

type Change = { readonly [Part in keyof Rule]?: Partial<Rule[Part]> };
const said = (
  change: Change,
  message: Partial<CampaignDocument['message']> = {},
  variants: CampaignDocument['variants'] = [],
) =>
  sentenceText(
    documentSentence({
      message: { ...plainMessage, ...message },
      rule: {
        moment: { ...plainRule.moment, ...change.moment },
        reach: { ...plainRule.reach, ...change.reach },
        limits: { ...plainRule.limits, ...change.limits },
      },
      variants,
    }),
  );
const schedule = { zone: 'site' as const, start: null, end: null, days: [], hours: [], blackouts: [] };
const source = (is: 'direct' | 'site' | 'search') => ({
  reach: {
    audience: {
      match: 'all' as const,
      groups: [
        {
          not: false,
          match: 'all' as const,
          items: [{ not: false, condition: { kind: 'source' as const, is } }],
        },
      ],
    },
  },
});
const pages = (
  include: Rule['reach']['pages']['include'],
  exclude: Rule['reach']['pages']['exclude'] = [],
) => ({
  reach: { pages: { include, exclude, follows: null } },
});

describe('the sentence says', () => {
  it.each<[phrase: string, change: Change, message?: Partial<CampaignDocument['message']>]>([
    ['opens when the page is ready ', { moment: { triggers: [{ kind: 'load', when: 'ready' }] } }],
    ['opens when the page has loaded ', { moment: { triggers: [{ kind: 'load', when: 'loaded' }] } }],
    [
      'opens on a quick scroll up by touch ',
      { moment: { triggers: [{ kind: 'exitTouch', by: 'scrollUp' }] } },
    ],
    ['opens on the back gesture ', { moment: { triggers: [{ kind: 'exitTouch', by: 'back' }] } }],
    ['opens at once ', { moment: { triggers: [{ kind: 'time', seconds: 0 }], join: 'all' } }],
    [
      'opens at once, not before 1 second, ',
      { moment: { triggers: [{ kind: 'time', seconds: 0 }], notBeforeSeconds: 1 } },
    ],
    [', until 1 showing goes unanswered', { limits: { stopAfterUnanswered: 1 } }],
    [', until 2 showings go unanswered', { limits: { stopAfterUnanswered: 2 } }],
    [' on no page yet,', pages([])],
    [' on no page yet, never on /a,', pages([], [{ kind: 'exact', address: '/a' }])],
    ['with a direct arrival', source('direct')],
    ['with an arrival from another site', source('site')],
    ['with an arrival from search', source('search')],
    [
      'from 1 December 2026 at 09:05, by the site’s clock',
      { limits: { schedule: { ...schedule, start: '2026-12-01T09:05' } } },
    ],
    [
      'between 09:00 and 17:00, by the site’s clock',
      { limits: { schedule: { ...schedule, hours: [{ from: '09:00', to: '17:00' }] } } },
    ],
    [
      'between 17:00 and 17:00 the next day, by',
      { limits: { schedule: { ...schedule, hours: [{ from: '17:00', to: '17:00' }] } } },
    ],
    ['at any time, by the visitor’s clock', { limits: { schedule: { ...schedule, zone: 'visitor' } } }],
    [
      'but not on 25 December 2026, by the site’s clock',
      { limits: { schedule: { ...schedule, blackouts: [{ from: '2026-12-25', to: '2026-12-25' }] } } },
    ],
    ['going before others with priority 6 of 9', { limits: { priority: 6 } }],
    ['letting others go first with priority 4 of 9', { limits: { priority: 4 } }],
    ['held back from 1 % of visitors', { limits: { holdout: 1 } }],
    ['A full-screen message opens', {}, { format: 'fullscreen', anchor: 'center' }],
    ['A slide-in from the right opens', {}, { format: 'slidein', anchor: 'end' }],
    ['A bar at the top opens', {}, { format: 'bar', anchor: 'top' }],
  ])('“%s”', (phrase, change, message) => {
    expect(said(change, message)).toContain(phrase);
  });
  it('nothing of a priority that is the usual one, nor of a holdout that there is not', () => {
    const plain = said({});
    expect(plain).not.toContain('priority');
    expect(plain).not.toContain('held back');
    expect(plain).not.toContain('not before');
    expect(plain).not.toContain('all of them');
  });
});
