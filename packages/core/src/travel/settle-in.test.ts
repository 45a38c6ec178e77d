import type { CampaignDocument, CampaignFile, FollowUp, PageRule } from '@velarium/contract';
import { campaignDocumentSchema } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newBlock, PLAIN_STYLE } from '../message/plain.ts';
import { plainMessage, someRule } from '../testing/arbitrary.ts';
import { someMessage } from '../testing/arbitrary-message.ts';
import { type SiteOffer, settleIn } from './settle-in.ts';

const [A, B, C, D, E] = [1, 2, 3, 4, 5].map((n) => `00000000-0000-4000-8000-00000000000${n}`) as [
  string,
  string,
  string,
  string,
  string,
];
const NOTHING: SiteOffer = { looks: new Map(), groups: new Map(), campaigns: new Map(), pictures: new Set() };
const NAMES: CampaignFile['names'] = {
  looks: { [A]: 'Night ridge' },
  pictures: { [C]: 'Ridge at dusk' },
  campaigns: { [D]: 'Sky letter', [E]: 'Membership' },
  groups: { [B]: { name: 'Tours', rules: [{ kind: 'begins', address: '/night-tours/' }] } },
};
const file = (document: CampaignDocument, followUps: CampaignFile['followUps'] = {}): CampaignFile => ({
  velarium: 'campaign',
  version: 1,
  name: 'A campaign',
  labels: [],
  note: '',
  document,
  followUps,
  names: NAMES,
});
const someDocument = fc.record({
  message: someMessage,
  rule: someRule,
  variants: fc.constant<CampaignDocument['variants']>([]),
});
const referring: CampaignDocument = {
  variants: [],
  message: {
    ...plainMessage,
    look: A,
    style: {
      ...PLAIN_STYLE,
      all: { ground: { kind: 'picture', picture: C, focus: [50, 50], tint: 'ink', strength: 40 } },
    },
    steps: [
      { id: 'first', role: 'first', blocks: [{ ...newBlock('picture'), picture: C, alt: 'The ridge' }] },
    ],
  },
  rule: {
    ...(fc.sample(someRule, { seed: 1, numRuns: 1 })[0] as CampaignDocument['rule']),
    reach: {
      devices: ['desktop'],
      pages: { include: [{ kind: 'group', id: B } as PageRule], exclude: [], follows: D },
      audience: {
        match: 'all',
        groups: [
          {
            not: false,
            match: 'all',
            items: [{ not: true, condition: { kind: 'campaign', id: E, what: 'seen' } }],
          },
        ],
      },
    },
  },
};

describe('a campaign on another site', () => {
  it('that has everything by name loses nothing, and means what the site calls so', () => {
    const { document, lost } = settleIn(file(referring), {
      looks: new Map([['look', 'Night ridge']]),
      groups: new Map([['group', 'Tours']]),
      campaigns: new Map([
        ['letter', 'Sky letter'],
        ['member', 'Membership'],
      ]),
      pictures: new Set([C]),
    });
    expect(lost).toEqual([]);
    expect(document.message.look).toBe('look');
    expect(document.rule.reach.pages).toEqual({
      include: [{ kind: 'group', id: 'group' }],
      exclude: [],
      follows: 'letter',
    });
    expect(document.rule.reach.audience?.groups[0]?.items[0]?.condition).toMatchObject({ id: 'member' });
  });
  it('that has none of it loses that, says so, and keeps the rest', () => {
    const { document, lost } = settleIn(file(referring), NOTHING);
    expect(lost).toHaveLength(5);
    expect(lost.join(' ')).toMatch(/Night ridge.*Ridge at dusk.*Tours.*Sky letter.*Membership/s);
    expect(document.message).toMatchObject({
      look: null,
      style: { all: { ground: { kind: 'colour', colour: 'ink' } } },
    });
    expect(document.message.steps[0]?.blocks[0]).toMatchObject({ picture: null, alt: 'The ridge' });
    expect(document.rule.reach.pages).toEqual({
      include: [{ kind: 'begins', address: '/night-tours/' }],
      exclude: [],
      follows: null,
    });
    expect(document.rule.reach.audience).toBeNull();
  });
  it('takes along what follows its answers; from elsewhere, without the people who were told there', () => {
    const mail = {
      subject: 'Welcome',
      preview: '',
      heading: 'Welcome',
      text: [[{ text: 'Clear skies.' }]],
      picture: { id: C, alt: 'The ridge' },
      button: null,
    };
    const followUp: FollowUp = {
      confirmation: null,
      welcome: [{ afterDays: 0, mail }],
      notice: { to: ['desk@quillonfell.example'], rhythm: 'daily' },
    };
    const given = file(referring, { form: followUp });
    expect(settleIn(given, { ...NOTHING, pictures: new Set([C]) }).followUps).toEqual({ form: followUp });
    const { followUps, lost } = settleIn(given, NOTHING, false);
    expect(followUps).toEqual({
      form: { ...followUp, welcome: [{ afterDays: 0, mail: { ...mail, picture: null } }], notice: null },
    });
    expect(lost).toContain('The picture “Ridge at dusk” of the mail “Welcome”.');
    expect(lost).toContain(
      'Who is told of each answer (desk@quillonfell.example): name them anew, if they are yours.',
    );
  });
  it('that has the very same by their ids keeps them, whatever they are called there', () => {
    const { document, lost } = settleIn(file(referring), {
      looks: new Map([
        ['other', 'Night ridge'],
        [A, 'Renamed'],
      ]),
      groups: new Map([[B, 'Renamed']]),
      campaigns: new Map([
        [D, 'Renamed'],
        [E, 'Renamed'],
      ]),
      pictures: new Set([C]),
    });
    expect(lost).toEqual([]);
    expect(document).toEqual(referring);
  });
  it('loses the picture of its close button and its films, and says each picture once', () => {
    const film = { ...newBlock('film'), id: 'film', picture: C };
    const message = {
      ...plainMessage,
      close: { ...plainMessage.close, sign: 'picture' as const, picture: C },
      steps: [
        { id: 'first', role: 'first' as const, blocks: [film, { ...newBlock('heading'), text: 'Hi' }] },
      ],
    };
    const given = file({ ...referring, message });
    const gone = settleIn(given, NOTHING);
    expect(gone.document.message.close).toMatchObject({ picture: null, sign: 'cross' });
    expect(gone.document.message.steps[0]?.blocks).toMatchObject([{ picture: null }, { text: 'Hi' }]);
    expect(gone.lost.filter((one) => one.startsWith('The picture'))).toEqual([
      'The picture “Ridge at dusk”: its place is empty.',
    ]);
    const kept = settleIn(given, { ...NOTHING, pictures: new Set([C]) });
    expect(kept.document.message.close).toMatchObject({ picture: C, sign: 'picture' });
    expect(kept.document.message.steps).toEqual(message.steps);
    // Drawn ones come with Velarium.
    const drawn = { ...message, steps: [], close: { ...message.close, picture: 'drawn:moon' } };
    expect(settleIn(file({ ...referring, message: drawn }), NOTHING).document.message.close.picture).toBe(
      'drawn:moon',
    );
  });
  it('tries its variants as before, but for a goal that is another site’s', () => {
    const trial = { smallest: 3, isPlanned: false };
    expect(settleIn(file({ ...referring, trial }), NOTHING).document.trial).toEqual(trial);
    const aimed = settleIn(file({ ...referring, trial: { ...trial, goal: A } } as CampaignDocument), NOTHING);
    expect(aimed.document.trial).toEqual(trial);
    expect(aimed.lost).toContain(
      'The goal its variants are tried for: they are tried for its own answer or click.',
    );
    expect(settleIn(file(referring), NOTHING).document).not.toHaveProperty('trial');
  });
  it('of a group that no name was given for only the pages are lost, and of this campaign itself nothing', () => {
    const document = {
      ...referring,
      rule: {
        ...referring.rule,
        reach: {
          ...referring.rule.reach,
          pages: {
            include: [{ kind: 'group' as const, id: E }, { kind: 'every' as const }],
            exclude: [],
            follows: null,
          },
          audience: {
            match: 'all' as const,
            groups: [
              {
                not: false,
                match: 'all' as const,
                items: [
                  { not: true, condition: { kind: 'campaign' as const, id: null, what: 'seen' as const } },
                  { not: false, condition: { kind: 'signedIn' as const, is: true } },
                ],
              },
            ],
          },
        },
      },
    };
    const { document: settled, lost } = settleIn(file(document), NOTHING);
    expect(settled.rule.reach.pages.include).toEqual([{ kind: 'every' }]);
    expect(lost).toContain('The page group “without a name”: its pages are left out.');
    expect(settled.rule.reach.audience).toEqual(document.rule.reach.audience);
  });
  it('whatever it is, it keeps to the contract, and settling in twice changes nothing more', () => {
    fc.assert(
      fc.property(someDocument, (document) => {
        const once = settleIn(file(document), NOTHING);
        expect(campaignDocumentSchema.safeParse(once.document).success).toBe(
          campaignDocumentSchema.safeParse(document).success,
        );
        expect(settleIn(file(once.document), NOTHING)).toEqual({
          document: once.document,
          followUps: {},
          lost: [],
        });
      }),
      { numRuns: 200 },
    );
  });
});
