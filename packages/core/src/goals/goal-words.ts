import type { CampaignParts, GoalDeed } from '@velarium/contract';
import { triggerWords } from '../sentence/moment-words.ts';
import type { Names } from '../sentence/names.ts';
import { pageWords } from '../sentence/reach-words.ts';
import { counted, listOf } from '../sentence/words.ts';

/** What is done where a goal is reached: `reached /booked`, `on the event “bought”, worth its “total”`. */
export function deedWords(deed: GoalDeed, names: Names): string {
  switch (deed.kind) {
    case 'answer':
      return 'any form is answered';
    case 'page':
      return `reached ${listOf(
        deed.pages.map((rule) => pageWords(rule, names)),
        'or',
      )}`;
    case 'event': {
      const { worth, ...event } = deed;
      const worthWords =
        worth === null ? '' : worth.from === 'basket' ? ', worth the basket' : `, worth its “${worth.path}”`;
      return triggerWords(event) + worthWords;
    }
  }
}

const money = new Intl.NumberFormat('en-GB', { minimumFractionDigits: 2, maximumFractionDigits: 2 });

/**
 * How often a goal was reached and what it was worth, beside how many reached it; nothing where that says it all. Worth is
 * in the site's own currency, which is not known here.
 */
export function deedsWords(
  { counts }: Pick<CampaignParts['goals'][number], 'counts'>,
  {
    visitors,
    times,
    worth,
  }: { readonly visitors: number; readonly times: number; readonly worth: number | null },
): string {
  const often = counts === 'each' ? counted(times, 'time') : '';
  const worths =
    worth === null || visitors === 0
      ? ''
      : `worth ${money.format(worth)}, ${money.format(worth / visitors)} a visitor`;
  return [often, worths].filter((words) => words !== '').join(', ');
}
