import type { CampaignState, ManifestsRun, Rule, SeenPage, Site, SitePage } from '@velarium/contract';
import { coveredPages } from '../pages/covered-pages.ts';
import type { SitePages } from '../pages/resolve-pages.ts';
import { counted, figure, listOf, quantity } from '../sentence/words.ts';
import { agoWords } from './ago-words.ts';
import { blockedBy } from './policy.ts';

export interface HealthSign {
  readonly code: string;
  readonly state: 'good' | 'look' | 'wrong';
  /** What is so. */
  readonly text: string;
  /** What to do about it; empty where all is well. */
  readonly mend: string;
  /** Lines to copy, where lines are what mends it. */
  readonly lines?: string;
}

export interface HealthInput {
  readonly site: Site;
  readonly known: readonly SitePage[];
  readonly pages: SitePages;
  /** Page views of the last days, the latest last, today left out. */
  readonly viewsByDay: readonly number[];
  readonly campaigns: readonly {
    readonly name: string;
    readonly state: CampaignState;
    readonly rule: Rule;
  }[];
  /** Whether the country of any visit of the last 30 days was known; `null` where there was no visit. */
  readonly knowsCountries: boolean | null;
  /** Policies of the site's home page; `null` where it could not be read. */
  readonly policies: readonly string[] | null;
  /** Whether a Look of the site is set in letters that are loaded with messages. */
  readonly loadsLetters: boolean;
  /** Where its tag comes from. */
  readonly edge: string;
  /** Which manifests the pages of yesterday and today ran. */
  readonly manifestsRun: ManifestsRun;
  /** Pages that were seen in a browser. */
  readonly seen: readonly SeenPage[];
  readonly nowMs: number;
}

/** A tag that was not heard from for so long is quiet. */
export const QUIET_MS = 86_400_000;
/** Page views of a day, as a share of what is usual, below which something has happened. */
const LOW_DAY = 0.3;
/** Days that tell what is usual, at least. */
const USUAL_DAYS = 4;
const NAMED = 3;

/** What can be told of how a site carries the tag and what its campaigns need, most serious first. */
export function siteHealth(input: HealthInput): HealthSign[] {
  const order = { wrong: 0, look: 1, good: 2 };
  return [
    tagSign(input),
    pagesSign(input),
    trafficSign(input),
    coverSign(input),
    manifestSign(input),
    routesSign(input),
    policySign(input),
    originSign(input),
    countrySign(input),
  ]
    .flatMap((sign) => sign ?? [])
    .sort((a, b) => order[a.state] - order[b.state]);
}

function tagSign({ site, nowMs }: HealthInput): HealthSign {
  const code = 'tag';
  if (site.lastSeenAt === null) {
    return {
      code,
      state: 'wrong',
      text: 'The tag was never heard from.',
      mend: 'Put its line into the head of every page, then open one of them.',
    };
  }
  const lastMs = Date.parse(site.lastSeenAt);
  const text = `The tag was last heard from ${agoWords(lastMs, nowMs)}.`;
  return nowMs - lastMs > QUIET_MS
    ? { code, state: 'wrong', text, mend: 'See whether its line is still in the pages.' }
    : { code, state: 'good', text, mend: '' };
}

function pagesSign({ known }: HealthInput): HealthSign | undefined {
  if (known.length === 0) {
    return {
      code: 'pages',
      state: 'look',
      text: 'No page of the site is known.',
      mend: 'Read its sitemap, or add pages by hand or from a file.',
    };
  }
  const unseen = known.filter(({ views }) => views === 0);
  const text = `Seen on ${known.length - unseen.length} of ${quantity(known.length, 'page')} in the last 30 days.`;
  if (unseen.length === 0) return { code: 'pages', state: 'good', text, mend: '' };
  const named = unseen.slice(0, NAMED).map(({ path }) => path);
  const more = unseen.length - named.length;
  return {
    code: 'pages',
    state: 'look',
    text,
    mend: `Not seen: ${listOf(more > 0 ? [...named, quantity(more, 'other')] : named)}. Nobody has been there, or the line is missing.`,
  };
}

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length / 2;
  return ((sorted[Math.ceil(middle) - 1] as number) + (sorted[Math.floor(middle)] as number)) / 2;
};

function trafficSign({ viewsByDay }: HealthInput): HealthSign | undefined {
  const last = viewsByDay.at(-1);
  const before = viewsByDay.slice(0, -1).filter((views) => views > 0);
  if (last === undefined || before.length < USUAL_DAYS) return undefined;
  const usual = median(before);
  const text = `Yesterday had ${figure(last)} page views; ${figure(Math.round(usual))} are usual.`;
  return last < usual * LOW_DAY
    ? {
        code: 'traffic',
        state: 'look',
        text,
        mend: 'If the site had as many visitors as ever, the line is missing from some of its pages.',
      }
    : { code: 'traffic', state: 'good', text, mend: '' };
}

function coverSign({ campaigns, known, site, pages }: HealthInput): HealthSign | undefined {
  const running = campaigns.filter(({ state }) => state === 'running');
  if (running.length === 0 || known.length === 0) return undefined;
  const nowhere = running.filter(({ rule }) => {
    const { covered, isEverywhere } = coveredPages(rule.reach.pages, known, { ...site, pages });
    return covered.length === 0 && !isEverywhere;
  });
  return nowhere.length === 0
    ? { code: 'cover', state: 'good', text: 'Every running campaign covers a page that is known.', mend: '' }
    : {
        code: 'cover',
        state: 'look',
        text: `${listOf(nowhere.map(({ name }) => `“${name}”`))} ${nowhere.length === 1 ? 'covers' : 'cover'} no page that is known.`,
        mend: 'See whether the pages have moved; what only a page itself can tell is not known here.',
      };
}

/** Pages on an old manifest, as a share of all: a tab that was open all night is none to speak of. */
const OLD_SHARE = 0.05;
const OLD_CALLS = 5;

/** For the worker of a page that keeps what it has fetched: what comes from the edge is asked for anew. */
const workerLines = (edge: string): string =>
  `// First in the worker's own "fetch" listener:
if (new URL(event.request.url).origin === '${edge}') return;`;

function manifestSign({ manifestsRun, edge, nowMs }: HealthInput): HealthSign | undefined {
  const { calls, outdated, oldest } = manifestsRun;
  if (calls === 0) return undefined;
  const code = 'manifest';
  if (outdated < OLD_CALLS || outdated < calls * OLD_SHARE || oldest === null)
    return { code, state: 'good', text: 'Pages run what is published.', mend: '' };
  return {
    code,
    state: 'wrong',
    text: `Of ${quantity(calls, 'page view')} since yesterday ${figure(outdated)} ran rules that have been replaced, the oldest made ${agoWords(Date.parse(oldest), nowMs)}: what rests may still be shown there.`,
    mend: 'A service worker of the site, or a cache in front of it, keeps what the tag asks for. Let it pass by:',
    lines: workerLines(edge),
  };
}

/** Links behind a `#` that make a page an application with routes. */
const FEWEST_ROUTES = 2;

function routesSign({ site, seen }: HealthInput): HealthSign | undefined {
  if (site.settings.hashRoutes) return undefined;
  const [most] = seen.filter(({ routes }) => routes >= FEWEST_ROUTES).sort((a, b) => b.routes - a.routes);
  return (
    most && {
      code: 'routes',
      state: 'look',
      text: `${most.path} leads to ${counted(most.routes, 'address', 'addresses')} behind a #, which are counted as one page.`,
      mend: 'If they are pages of their own, say so under Settings, “A fragment is a page of its own”.',
    }
  );
}

function policySign({ site, policies, edge, loadsLetters }: HealthInput): HealthSign | undefined {
  if (policies === null || policies.length === 0) return undefined;
  const blocked = blockedBy(policies, edge, site.origins[0] ?? '').filter(
    (one) => one !== 'font-src' || loadsLetters,
  );
  const code = 'policy';
  if (blocked.length === 1 && blocked[0] === 'font-src')
    return {
      code,
      state: 'look',
      text: `The home page’s Content-Security-Policy keeps the letters of messages from loading: font-src leaves ${edge} out.`,
      mend: `Add ${edge} to font-src. Until then messages are read in the next family of their Look.`,
    };
  return blocked.length === 0
    ? { code, state: 'good', text: 'The home page’s Content-Security-Policy lets the tag work.', mend: '' }
    : {
        code,
        state: 'wrong',
        text: `The home page’s Content-Security-Policy keeps the tag from working: ${listOf(blocked)} ${blocked.length === 1 ? 'leaves' : 'leave'} ${edge} out.`,
        mend: `Add ${edge} to ${listOf(blocked)}. Where scripts are trusted by a nonce, give the line one too.`,
      };
}

/** Hosts a browser trusts without encryption. Source: W3C Secure Contexts, 3.1. */
const isTrusted = (origin: string) =>
  /^https:|^http:\/\/(localhost|127(\.\d+){3}|\[::1\]|[^/]*\.localhost)(:|$)/.test(origin);

function originSign({ site }: HealthInput): HealthSign | undefined {
  const plain = site.origins.filter((origin) => !isTrusted(origin));
  if (plain.length === 0) return undefined;
  return {
    code: 'origin',
    state: 'look',
    text: `${listOf(plain)} ${plain.length === 1 ? 'is' : 'are'} not encrypted.`,
    mend: 'Serve it over https: without it browsers keep no lock between two tabs, so a cap can be passed by one.',
  };
}

function countrySign({ campaigns, knowsCountries }: HealthInput): HealthSign | undefined {
  const asking = campaigns.filter(
    ({ state, rule }) =>
      (state === 'running' || state === 'scheduled') &&
      rule.reach.audience?.groups.some(({ items }) =>
        items.some(({ condition }) => condition.kind === 'country' && condition.code !== 'unknown'),
      ),
  );
  if (asking.length === 0 || knowsCountries !== false) return undefined;
  return {
    code: 'country',
    state: 'wrong',
    text: `${listOf(asking.map(({ name }) => `“${name}”`))} ${asking.length === 1 ? 'asks' : 'ask'} for a country, and none was known of any visit.`,
    mend: 'Give the server a country file, or let its proxy tell the country in a header.',
  };
}
