import type { Expectation, Rehearsal, RehearsalOutcome, Rehearsed } from '@velarium/contract';
import { counted, ordinal, quoted } from '../sentence/words.ts';
import { verdictSentence } from '../verdict/verdict.ts';
import type { Played } from './play.ts';

export interface Judged {
  readonly words: string;
  readonly holds: boolean;
  /** Why it does not hold; empty where it does. */
  readonly why: string;
}

/** Seconds of a page as a clock shows them: `0:20`, `1:05.5`. */
export function clockWords(second: number): string {
  const tenths = Math.round(second * 10);
  const seconds = String(Math.floor((tenths % 600) / 10)).padStart(2, '0');
  return `${Math.floor(tenths / 600)}:${seconds}${tenths % 10 > 0 ? `.${tenths % 10}` : ''}`;
}

const pageName = (rehearsal: Pick<Rehearsal, 'pages'>, at: number): string =>
  rehearsal.pages[at]?.path ?? `the ${ordinal(at + 1)} page`;

/** What is expected, in words: `“Sky letter” opens on /journal by 0:20`. */
export function expectationWords(
  expectation: Expectation,
  rehearsal: Pick<Rehearsal, 'pages'>,
  nameOf: (campaign: string) => string,
): string {
  switch (expectation.kind) {
    case 'opens': {
      const { page, bySecond } = expectation;
      const where = page === null ? '' : ` on ${pageName(rehearsal, page)}`;
      const when = bySecond === null ? '' : ` by ${clockWords(bySecond)}`;
      return `${quoted(nameOf(expectation.campaign))} opens${where}${when}`;
    }
    case 'never':
      return `${quoted(nameOf(expectation.campaign))} never opens`;
    case 'atMost':
      return `At most ${counted(expectation.count, 'message')} in this visit`;
  }
}

/** Whether what is expected of a visit came to be, and why it did not. `write` puts an instant into the reader's words. */
export function judge(
  played: Played,
  rehearsal: Pick<Rehearsal, 'pages' | 'expectations'>,
  nameOf: (campaign: string) => string,
  write: (atMs: number) => string,
): Judged[] {
  const told = ({ campaign, page, second }: Played['openings'][number]) =>
    `${quoted(nameOf(campaign))} at ${clockWords(second)} on ${pageName(rehearsal, page)}`;
  const whyOf = (expectation: Expectation): string => {
    if (expectation.kind === 'atMost') {
      const { openings } = played;
      return openings.length <= expectation.count
        ? ''
        : `${counted(openings.length, 'message')} opened: ${openings.map(told).join(', ')}.`;
    }
    const openings = played.openings.filter(({ campaign }) => campaign === expectation.campaign);
    if (expectation.kind === 'never')
      return openings[0] ? `It opened: ${openings.map(told).join(', ')}.` : '';
    const lane = played.lanes.find(({ campaign }) => campaign === expectation.campaign);
    if (!lane) return 'It is not among the campaigns this visit is played against.';
    const { page, bySecond } = expectation;
    const here = openings.filter((one) => page === null || one.page === page);
    if (here.some(({ second }) => bySecond === null || second <= bySecond)) return '';
    const [late] = here;
    if (late) return `It opens only at ${clockWords(late.second)}.`;
    const last = lane.stretches.filter((one) => page === null || one.page === page).at(-1);
    const elsewhere = openings[0] ? ` It opened on ${pageName(rehearsal, openings[0].page)}.` : '';
    return (last ? verdictSentence(last.verdict, write) : 'The visit has no such page.') + elsewhere;
  };
  return rehearsal.expectations.map((expectation) => {
    const why = whyOf(expectation);
    return { words: expectationWords(expectation, rehearsal, nameOf), holds: why === '', why };
  });
}

/** Of rehearsals that were played: those that expect anything, and of them those of which something does not hold. */
export function outcomeOf(played: readonly Rehearsed[]): { asked: Rehearsed[]; failing: Rehearsed[] } {
  const asked = played.filter(({ expectations }) => expectations.length > 0);
  return { asked, failing: asked.filter(({ expectations }) => expectations.some(({ holds }) => !holds)) };
}

/** The same as a site's own build wants it. */
export function exitOf(played: readonly Rehearsed[]): RehearsalOutcome {
  const { asked, failing } = outcomeOf(played);
  return {
    exitCode: failing.length > 0 ? 1 : 0,
    asked: asked.length,
    failing: failing.map(({ name, expectations }) => ({
      name,
      expectations: expectations.filter(({ holds }) => !holds).map(({ words, why }) => ({ words, why })),
    })),
  };
}
