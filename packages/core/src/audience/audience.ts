import type { Audience, AudienceItem, Browser, Condition, Source, System } from '@velarium/contract';
import { compare } from './compare.ts';

/** What is known of a visitor; `null` is not known, and unknown is never true. */
export interface VisitorFacts {
  readonly sessions: number;
  readonly viewsInSession: number;
  readonly signedIn: boolean | null;
  /** Host the visit came from, lower case; empty when it came from nowhere known. */
  readonly referrer: string;
  /** The kind of place it came from, see `sourceOf`; told by the edge, which has a list of hosts. */
  readonly source: Source | null;
  /** Parameters of the address the session began at. */
  readonly arrival: Readonly<Record<string, string>>;
  /** Path the session began at. */
  readonly landing: string;
  /** Languages the browser asks for, lower case, best first. */
  readonly languages: readonly string[];
  /** Two letters, lower case. */
  readonly country: string | null;
  readonly browser: Browser;
  readonly system: System;
  readonly basket: { readonly items: number; readonly total: number } | null;
  readonly attributes: Readonly<Record<string, string>>;
  /** Campaigns seen, closed and converted on so far. */
  readonly history: (id: string) => {
    readonly seen: boolean;
    readonly closed: boolean;
    readonly converted: boolean;
  };
}

/** Whether a visitor is in the audience. Everybody is in none. */
export function isInAudience(audience: Audience | null, facts: VisitorFacts, campaign: string): boolean {
  if (!audience) return true;
  const groups = audience.groups.map(
    (group) =>
      meets(
        group.match,
        group.items.map(({ not, condition }) => isTrue(condition, facts, campaign) !== not),
      ) !== group.not,
  );
  return meets(audience.match, groups);
}

const meets = (match: 'all' | 'any', parts: readonly boolean[]) =>
  match === 'all' ? parts.every(Boolean) : parts.some(Boolean);

/**
 * The conditions for whose sake a visitor is outside an audience, each as it would have to be. Where one of several would
 * do, all of them.
 */
export function failingConditions(audience: Audience, facts: VisitorFacts, campaign: string): AudienceItem[] {
  return audience.groups.flatMap((group) => {
    const items = group.items.map((item) => ({
      item,
      holds: isTrue(item.condition, facts, campaign) !== item.not,
    }));
    const isMet = meets(
      group.match,
      items.map(({ holds }) => holds),
    );
    if (isMet !== group.not) return [];
    // A group that must not hold does: any of what made it hold would have to be otherwise.
    return items
      .filter(({ holds }) => holds === group.not)
      .map(({ item }) => ({ ...item, not: item.not !== group.not }));
  });
}

const pennies = (amount: number): number => Math.round(amount * 10_000);

function isTrue(condition: Condition, facts: VisitorFacts, campaign: string): boolean {
  switch (condition.kind) {
    case 'visitor':
      return facts.sessions > 1 === (condition.is === 'returning');
    case 'sessions':
      return compare(facts.sessions, condition.comparison, condition.count);
    case 'views':
      return compare(facts.viewsInSession, condition.comparison, condition.count);
    case 'signedIn':
      return facts.signedIn === condition.is;
    case 'source':
      return facts.source === condition.is;
    case 'referrer':
      return facts.referrer === condition.host || facts.referrer.endsWith(`.${condition.host}`);
    case 'arrival':
      return (
        Object.hasOwn(facts.arrival, condition.parameter) &&
        facts.arrival[condition.parameter] === condition.value
      );
    case 'landing':
      return facts.landing === condition.path;
    case 'language':
      return facts.languages.some((one) => one === condition.code || one.startsWith(`${condition.code}-`));
    case 'country':
      return (facts.country ?? 'unknown') === condition.code;
    case 'browser':
    case 'system':
      return facts[condition.kind] === condition.is;
    case 'basketItems':
      return facts.basket !== null && compare(facts.basket.items, condition.comparison, condition.count);
    case 'basketTotal':
      // Sums of money are compared to a hundredth of a penny: 0.1 and 0.2 are 0.3.
      return (
        facts.basket !== null &&
        compare(pennies(facts.basket.total), condition.comparison, pennies(condition.amount))
      );
    case 'attribute':
      return (
        Object.hasOwn(facts.attributes, condition.name) &&
        facts.attributes[condition.name] === condition.value
      );
    case 'campaign':
      return facts.history(condition.id ?? campaign)[condition.what];
  }
}
