import type { PageGroup, PageRule, Site } from '@velarium/contract';
import { NO_NAMES } from '../sentence/names.ts';
import { pageWords } from '../sentence/reach-words.ts';
import { listOf } from '../sentence/words.ts';

type Told = Pick<Site, 'settings' | 'origins'>;

/** The parameters that a rule asks for, by name or as part of an address, a text or a pattern. */
function parametersOf(rule: PageRule): string[] {
  if (rule.kind === 'parameter') return [rule.name];
  // A question mark is a sign of its own in an expression.
  if (rule.kind === 'regex') return namesIn(rule.pattern, /([\w-]+)=/g);
  if (rule.kind === 'contains') return namesIn(rule.text, /[?&]([\w-]+)|([\w-]+)=/g);
  return namesIn(addressOf(rule).split('?').slice(1).join('?').replace(/#.*/, ''), /([^&=]+)[^&]*/g);
}
const namesIn = (text: string, name: RegExp): string[] => [
  ...new Set([...text.matchAll(name)].map(([, first, second]) => first ?? second ?? '')),
];
const addressOf = (rule: PageRule): string =>
  'address' in rule ? rule.address : rule.kind === 'wildcard' ? rule.pattern : '';

/** What is not kept of a page that a rule asks for; nothing where all of it is. */
function notKept(rule: PageRule, { settings, origins }: Told): string | undefined {
  if (rule.kind === 'holds') return 'what a page holds is not kept with its visitors';
  const kept = new Set(settings.pageParameters.map((name) => name.toLowerCase()));
  const lost = parametersOf(rule).filter((name) => !kept.has(name.toLowerCase()));
  if (lost.length > 0)
    return `${listOf(lost.map((name) => `“${name}”`))} ${
      lost.length === 1 ? 'is' : 'are'
    } not among the parameters that tell pages of this site apart`;
  const [origin] = /^https?:\/\/[^/?#]*/i.exec(addressOf(rule)) ?? [];
  return origin === undefined || origin.toLowerCase() === origins[0]
    ? undefined
    : 'of a page’s address only the path is kept with its visitors, not the host';
}

/** Of the page groups by which results tell visitors apart, what cannot be told: a sentence for each rule of which too little is kept. */
export const untoldOfGroups = (groups: readonly PageGroup[], site: Told): string[] =>
  groups.flatMap(({ name, rules }) =>
    rules.flatMap((rule) => {
      const why = notKept(rule, site);
      return why ? `“${name}”, ${pageWords(rule, NO_NAMES)}: ${why}.` : [];
    }),
  );
