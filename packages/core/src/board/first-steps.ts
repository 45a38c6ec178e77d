import type { CampaignSummary, Look, Site } from '@velarium/contract';
import { agoWords } from '../checks/ago-words.ts';
import { LOOKS } from '../look/looks.ts';
import { counted } from '../sentence/words.ts';

/** In the order people work. */
export type FirstStep = 'tag' | 'look' | 'message' | 'seen';
export interface FirstStepState {
  readonly step: FirstStep;
  /** Whether the fact itself says so. */
  readonly isDone: boolean;
  /** The fact, or what is waited for. */
  readonly text: string;
}

export interface SiteFacts {
  readonly lastSeenAt: Site['lastSeenAt'];
  readonly looks: readonly Pick<Look, 'name' | 'style' | 'isDefault'>[];
  readonly campaigns: readonly Pick<CampaignSummary, 'publishedAt' | 'numbers'>[];
}

/** How far a new site has come, each step told by what is there and never by what somebody ticked. */
export function firstSteps({ lastSeenAt, looks, campaigns }: SiteFacts, nowMs: number): FirstStepState[] {
  const own = looks.find(isOwnLook);
  const live = campaigns.filter(({ publishedAt }) => publishedAt !== null).length;
  const showings = campaigns.reduce((sum, { numbers }) => sum + numbers.showings, 0);
  return [
    {
      step: 'tag',
      isDone: lastSeenAt !== null,
      text:
        lastSeenAt === null
          ? 'Nothing has been heard from the site yet.'
          : `Heard ${agoWords(Date.parse(lastSeenAt), nowMs)}.`,
    },
    {
      step: 'look',
      isDone: own !== undefined,
      text: own ? `“${own.name}” is this site’s own.` : 'Messages wear a Look that every site begins with.',
    },
    {
      step: 'message',
      isDone: campaigns.length > 0,
      text: campaigns.length > 0 ? `${counted(campaigns.length, 'campaign')}.` : 'There is none yet.',
    },
    {
      step: 'seen',
      isDone: showings > 0,
      text:
        showings > 0
          ? `${counted(showings, 'showing')} so far.`
          : live > 0
            ? 'It is published; nobody has met it yet.'
            : 'Nothing is published yet.',
    },
  ];
}

/** Not one of those that every site begins with, as it began. */
const isOwnLook = ({ name, style }: Pick<Look, 'name' | 'style'>): boolean =>
  !LOOKS.some((preset) => preset.name === name && isLike(preset.style, style));

/** The same values, in whatever order a database has put their names. */
const isLike = (a: unknown, b: unknown): boolean => {
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b;
  const [one, other] = [Object.entries(a), new Map(Object.entries(b))];
  return one.length === other.size && one.every(([name, value]) => isLike(value, other.get(name)));
};
