import { mailDraftSchema, type SiteResults } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { weekMail } from './week-mail.ts';

const none = {
  showings: 0,
  clicks: 0,
  closes: 0,
  closedSoon: 0,
  conversions: 0,
  visitors: 0,
  viewers: 0,
  clickers: 0,
  writers: 0,
  converters: 0,
  withheld: 0,
};
const PERIOD = { from: '2026-11-16', until: '2026-11-22' };
const AGAINST = { from: '2026-11-09', until: '2026-11-15' };
const mailOf = (campaigns: Pick<SiteResults['campaigns'][number], 'name' | 'counts' | 'before'>[]) =>
  weekMail(
    {
      period: PERIOD,
      against: AGAINST,
      campaigns: campaigns.map((one, n) => ({ id: `${n}`, isArchived: false, ...one })),
    },
    { site: 'Quillon Fell', address: 'https://studio.example/sites/1/results' },
  );
const linesOf = (mail: ReturnType<typeof mailOf>) =>
  mail.text.map((paragraph) => paragraph.map(({ text }) => text).join(''));

describe('the mail of a week', () => {
  it('says every rate with its interval and how it changed, the certain first, and is a mail', () => {
    const mail = mailOf([
      { name: 'Quiet', counts: none, before: none },
      { name: 'Few', counts: { ...none, visitors: 2, converters: 1 }, before: none },
      {
        name: 'Many',
        counts: { ...none, visitors: 1000, converters: 100, closes: 10, closedSoon: 4 },
        before: { ...none, visitors: 1000, converters: 50 },
      },
    ]);
    expect(mailDraftSchema.safeParse(mail).success).toBe(true);
    expect(mail.subject).toBe('Quillon Fell: the week from 16 November 2026 to 22 November 2026');
    // Wilson (1927) and Newcombe (1998, method 10) of 100 and 50 in 1,000, to the figure shown.
    expect(linesOf(mail)).toEqual([
      '16 November 2026 to 22 November 2026, against 9 November 2026 to 15 November 2026.',
      // By the lower end of the interval, as on Results.
      'Few: 2 visitors, 1 converted: 50 % (9.5 to 91 %).',
      'Many: 1,000 visitors, 100 converted: 10 % (8.3 to 12 %); +5.0 points (+2.7 to +7.3) against the week before.',
      'Of 10 closes, 4 came within two seconds of the opening (40 %): those messages were not read.',
    ]);
  });
  it('compares weeks of which both had visitors, and lists a campaign that had some in either', () => {
    const met = (visitors: number) => ({ ...none, visitors });
    const lines = linesOf(
      mailOf([
        { name: 'One', counts: met(1), before: met(1) },
        { name: 'New', counts: met(1), before: met(0) },
        { name: 'Gone', counts: met(0), before: met(1) },
        { name: 'First', counts: met(1), before: null },
      ]),
    ).slice(1, 5);
    expect(lines.filter((line) => line.includes('against the week before'))).toEqual([
      expect.stringMatching(/^One: 1 visitor/),
    ]);
    expect(lines).toContain('Gone: nobody met it.');
  });
  it('says in its preview how many met visitors', () => {
    const of = (count: number) =>
      mailOf(
        Array.from({ length: count }, (_, n) => ({
          name: `C${n}`,
          counts: { ...none, visitors: 1 },
          before: null,
        })),
      );
    expect([of(0), of(1), of(2)].map(({ preview }) => preview)).toEqual([
      'No message was shown.',
      '1 campaign met visitors.',
      '2 campaigns met visitors.',
    ]);
    expect(linesOf(of(1)).at(-1)).toBe('No message was closed on these days.');
    expect(linesOf(of(0))).toHaveLength(2);
    expect(linesOf(of(20)).some((line) => line.startsWith('And'))).toBe(false);
    expect(linesOf(of(21))).toContain('And 1 more campaign.');
  });
  it('says that nothing was shown, and of very many names twenty', () => {
    expect(linesOf(mailOf([{ name: 'Quiet', counts: none, before: null }]))[1]).toBe(
      'No message was shown in this week.',
    );
    const many = Array.from({ length: 25 }, (_, n) => ({
      name: `Campaign ${n}`,
      counts: { ...none, visitors: 10 },
      before: null,
    }));
    expect(linesOf(mailOf(many)).filter((line) => line.startsWith('Campaign'))).toHaveLength(20);
    expect(linesOf(mailOf(many))).toContain('And 5 more campaigns.');
  });
});
