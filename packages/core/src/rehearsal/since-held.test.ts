import type { CampaignDocument, ManifestCampaign, SiteSettings } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { NO_NAMES } from '../sentence/names.ts';
import { plainMessage, plainRule, plainSettings } from '../testing/arbitrary.ts';
import { campaign } from '../testing/begin-page-view.ts';
import { castStateOf, changesSince } from './since-held.ts';

const document = (change: Partial<CampaignDocument['rule']> = {}): CampaignDocument => ({
  message: plainMessage,
  rule: { ...plainRule, ...change },
  variants: [],
});
const timed = (seconds: number) =>
  document({ moment: { ...plainRule.moment, triggers: [{ kind: 'time', seconds }] } });

interface One {
  readonly name?: string;
  readonly of?: CampaignDocument;
  readonly compiled?: Partial<ManifestCampaign>;
}
function state(ones: Readonly<Record<string, One>>, site: Partial<SiteSettings> = {}) {
  const ids = Object.keys(ones);
  return castStateOf(
    {
      campaigns: ids.map((id) => ({ id, name: ones[id]?.name ?? id, state: 'running' })),
      manifest: {
        site: { ...plainSettings, ...site },
        campaigns: ids.map((id) => ({ ...campaign(id), ...ones[id]?.compiled })),
      },
    },
    (id) => ones[id]?.of ?? document(),
    NO_NAMES,
  );
}
const before = state({ letter: { name: 'Sky letter' } });
const since = (now: ReturnType<typeof state>) => changesSince(before, now);

describe('what is otherwise since a rehearsal held', () => {
  it.each<[what: string, now: ReturnType<typeof state>, changes: string[]]>([
    ['nothing', before, []],
    [
      'a phrase of a rule',
      state({ letter: { name: 'Sky letter', of: timed(25) } }),
      ['“Sky letter”: “after 5 seconds” has become “after 25 seconds”.'],
    ],
    [
      'a phrase that was not said',
      state({
        letter: { name: 'Sky letter', of: document({ limits: { ...plainRule.limits, priority: 9 } }) },
      }),
      [expect.stringMatching(/^“Sky letter”: “.+” is new\.$/) as unknown as string],
    ],
    [
      'one that has come',
      state({ letter: { name: 'Sky letter' }, bar: { name: 'Bar' } }),
      ['“Bar” is new among them.'],
    ],
    ['one that has gone', state({}), ['“Sky letter” is no longer among them.']],
    [
      'what a rule refers to',
      state({ letter: { name: 'Sky letter', compiled: { includeKeys: ['/elsewhere'] } } }),
      ['“Sky letter” reads as it did, but something it refers to is otherwise.'],
    ],
    [
      'a setting of the site',
      state({ letter: { name: 'Sky letter' } }, { sessionMinutes: 45 }),
      ['Settings of the site are otherwise.'],
    ],
    // Neither decides when anything opens.
    [
      'the message only',
      state({ letter: { name: 'Sky letter', compiled: { message: 'other', version: 7 } } }),
      [],
    ],
    ['the name only', state({ letter: { name: 'Letter' } }), []],
  ])('%s', (_what, now, changes) => {
    expect(since(now)).toEqual(changes);
  });

  it('says the limits of the site in both ways', () => {
    const limits = { ...plainSettings.limits, perSession: 1 };
    const [said = '', ...more] = since(state({ letter: { name: 'Sky letter' } }, { limits }));
    expect(said).toMatch(
      /^The site’s limits: “A visitor .+” has become “A visitor meets at most .*1 in a session.*”\.$/,
    );
    expect(more).toEqual([]);
  });
});
