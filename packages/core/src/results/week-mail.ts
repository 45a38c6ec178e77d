import type { MailDraft, RichText, SiteResults } from '@velarium/contract';
import { counted, figure } from '../sentence/words.ts';
import { conversionRate } from '../statistics/conversion-rate.ts';
import { rateDifference } from '../statistics/difference.ts';
import { byCertainty } from './order.ts';
import { closedSoonWords, differenceWords, intervalWords, percent, periodWords } from './words.ts';

/** Longest list of campaigns in a mail; the rest is a press away. */
const MOST = 20;

/** What a site's week came to, as a mail: what is certain first, and nothing without its interval. */
export function weekMail(
  results: Pick<SiteResults, 'period' | 'against' | 'campaigns'>,
  { site, address }: { readonly site: string; readonly address: string },
): MailDraft {
  const told = byCertainty(
    results.campaigns.filter(({ counts, before }) => counts.visitors + (before?.visitors ?? 0) > 0),
    ({ counts }) => counts,
  );
  const line = ({ name, counts, before }: (typeof told)[number]): RichText[number] => {
    const rate = conversionRate(counts);
    const share =
      rate.value === null
        ? 'nobody met it'
        : `${counted(counts.visitors, 'visitor')}, ${figure(counts.converters)} converted: ${percent(rate.value)} (${intervalWords(rate)})`;
    const change =
      before && before.visitors > 0 && counts.visitors > 0
        ? `; ${differenceWords(rateDifference(before, counts))} against the week before`
        : '';
    return [{ text: name, bold: true }, { text: `: ${share}${change}.` }];
  };
  return {
    subject: `${site}: the week from ${periodWords({ period: results.period, against: null })}`,
    preview:
      told.length === 0 ? 'No message was shown.' : `${counted(told.length, 'campaign')} met visitors.`,
    heading: `What messages did on ${site}`,
    text: [
      [{ text: `${periodWords(results)}.` }],
      ...(told.length === 0
        ? [[{ text: 'No message was shown in this week.' }]]
        : told.slice(0, MOST).map(line)),
      ...(told.length > MOST ? [[{ text: `And ${counted(told.length - MOST, 'more campaign')}.` }]] : []),
      ...(told.length > 0 ? [[{ text: closedSoonWords(told.map(({ counts }) => counts)) }]] : []),
    ],
    picture: null,
    button: { label: 'See all of it', address },
  };
}
