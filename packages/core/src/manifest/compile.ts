import type {
  Audience,
  CompiledPageRule,
  Condition,
  Goal,
  Limits,
  Manifest,
  ManifestCampaign,
  Moment,
  PageRule,
  Rule,
  SiteSettings,
  TagPart,
  Trigger,
  TriggerKind,
} from '@velarium/contract';
import { BUCKETS, TAG_PARTS } from '@velarium/contract/values';
import { cellsOf, type PlacedMessage } from '../arbitration/cells.ts';
import { type Allotment, allot } from '../assignment/allot.ts';
import type { ByLanguage } from '../assignment/assign.ts';
import { DEVICE_AT } from '../devices/device.ts';
import { createKeyReader, type KeyReader } from '../pages/page-key.ts';
import { withSlash } from '../pages/plain-page-rule.ts';
import { resolvePages, type SitePages } from '../pages/resolve-pages.ts';
import { seenAddress } from '../pages/seen-address.ts';
import { compileRegex, compileWildcard, type Program } from '../patterns/compile.ts';

/** A published campaign as the compiler takes it, in order of precedence. */
export interface CompiledFrom {
  readonly id: string;
  readonly version: number;
  readonly messageHash: string;
  readonly languages?: ByLanguage | undefined;
  /** Every message it may show, the variants' too. */
  readonly messages: readonly PlacedMessage[];
  readonly rule: Rule;
  /** Whether a text of it wants what the page tells of its visitor. */
  readonly asksFacts: boolean;
  /** Times its caps were begun afresh. */
  readonly epoch: number;
  /** Messages beside the first, with their shares of 100. */
  readonly variants: readonly {
    readonly id: string;
    readonly weight: number;
    readonly messageHash: string;
    readonly languages?: ByLanguage | undefined;
    /** When it opens, where that differs. */
    readonly moment?: Moment | undefined;
  }[];
  /** How its visitors were divided when it was published; anew where it is not said. */
  readonly allotment?: Allotment | undefined;
}

/** The first message's name among the variants. */
const FIRST_VARIANT = 'a';

/** Compiles published rules into what the tag needs to decide: normalised page keys apart, bits for devices. */
export function compileManifest(
  site: {
    readonly settings: SiteSettings;
    readonly timeZone: string;
    readonly pages: SitePages;
    readonly goals?: readonly Pick<Goal, 'id' | 'deed'>[];
  },
  campaigns: readonly CompiledFrom[],
): Manifest {
  const read = tolerant(createKeyReader(site.settings));
  const compiled = campaigns.map((campaign) => compileCampaign(read, site.pages, campaign));
  const goals = (site.goals ?? []).flatMap(({ id, deed }) => {
    if (deed.kind !== 'event') return [];
    const { kind: _, ...told } = deed;
    return [{ id, ...told }];
  });
  const of = (needs: (campaign: ManifestCampaign) => boolean) => compiled.map(needs);
  const goesByEvents = goals.length > 0;
  const parts: Readonly<Record<TagPart, PartNeeds>> = {
    extras: {
      // What a page tells of its visitor is taken down on all of them, and filled into a text wherever that is opened.
      isEverywhere:
        goesByEvents || site.settings.recordedFacts !== null || campaigns.some(({ asksFacts }) => asksFacts),
      askedBy: of(needsExtras),
    },
    rare: { isEverywhere: goesByEvents || siteNeedsRare(site.settings), askedBy: of(needsRare) },
  };
  const needed = TAG_PARTS.filter((part) => parts[part].isEverywhere || parts[part].askedBy.includes(true));
  /** Those that can wait for a page on which whoever asks for them can open. */
  const waiting = needed.filter(
    (part) =>
      !parts[part].isEverywhere &&
      compiled.every((campaign, n) => !parts[part].askedBy[n] || canWait(campaign)),
  );
  const everywhere = needed.filter((part) => !waiting.includes(part));
  const asksOf = (n: number) => waiting.filter((part) => parts[part].askedBy[n]);
  // Tags of before know of no other, and cannot read folders without the extras.
  const all = TAG_PARTS.filter(
    (part) => needed.includes(part) || (part === 'extras' && compiled.some(namesFolders)),
  );
  return {
    v: 1,
    parts: all,
    ...(everywhere.length < all.length ? { everywhere } : {}),
    asksEdge: compiled.some((campaign) => asksFor(campaign, ['country', 'source'])),
    timeZone: site.timeZone,
    site: site.settings,
    // Few sites have any.
    ...(goesByEvents ? { goals } : {}),
    campaigns: compiled.map((one, n) => (asksOf(n).length > 0 ? { ...one, asks: asksOf(n) } : one)),
  };
}

/** Why pages load one of the tag's parts. */
interface PartNeeds {
  readonly isEverywhere: boolean;
  /** Which campaigns do not open without it, by position. */
  readonly askedBy: readonly boolean[];
}

/** A rule of before addresses were checked may name none; it covers no page and takes nothing from the others. */
const tolerant =
  (read: KeyReader): KeyReader =>
  (address) => {
    try {
      return read(address);
    } catch {
      return { path: address, full: address };
    }
  };

/** Triggers that need no fact: the clocks and the counts are enough. */
const BY_THEMSELVES: ReadonlySet<TriggerKind> = new Set(['time', 'sessionTime', 'count', 'inactivity']);

/** Page rules that look at parts of an address. */
const TAKES_APART: ReadonlySet<CompiledPageRule['kind']> = new Set(['contains', 'program', 'parameter']);

const asksFor = ({ audience }: ManifestCampaign, kinds: readonly Condition['kind'][]): boolean =>
  audience?.groups.some(({ items }) => items.some(({ condition }) => kinds.includes(condition.kind))) ??
  false;

/** Every trigger it may wait for, its variants' too. */
const triggersOf = ({ moment, experiment }: ManifestCampaign): readonly Trigger[] => [
  ...moment.triggers,
  ...(experiment?.variants ?? []).flatMap((variant) => variant.moment?.triggers ?? []),
];

const needsExtras = (campaign: ManifestCampaign): boolean =>
  campaign.audience !== null ||
  campaign.schedule !== null ||
  pageRulesOf(campaign).some(({ kind }) => kind !== 'every' && kind !== 'begins') ||
  triggersOf(campaign).some(({ kind }) => !BY_THEMSELVES.has(kind));

const siteNeedsRare = ({ privacy, sharedDomain, worksInFrames }: SiteSettings): boolean =>
  privacy.memory === 'asked' || sharedDomain !== null || worksInFrames === true;

const needsRare = (campaign: ManifestCampaign): boolean =>
  campaign.experiment !== null ||
  campaign.languages !== undefined ||
  campaign.schedule !== null ||
  triggersOf(campaign).some(({ kind }) => kind === 'exitTouch') ||
  pageRulesOf(campaign).some(({ kind }) => TAKES_APART.has(kind)) ||
  asksFor(campaign, ['browser', 'system']);

const namesFolders = (campaign: ManifestCampaign): boolean =>
  pageRulesOf(campaign).some(({ kind }) => kind === 'begins');

const pageRulesOf = ({ include, exclude }: ManifestCampaign) => [...include, ...exclude];

/**
 * Whether a part that it needs can wait for the pages on which this can open: the address alone says which, and these are not all.
 * A page may open any campaign by its own script, wherever it is, and must know then which variant it is, in which language; which
 * browser it is, is asked once.
 */
const canWait = (campaign: ManifestCampaign): boolean =>
  campaign.experiment === null &&
  campaign.languages === undefined &&
  !asksFor(campaign, ['browser', 'system']) &&
  campaign.include.every(({ kind }) => kind === 'begins');

/** Whether these limits look beyond the page view, and so need to remember. */
const needsMemory = ({ caps, afterClose, afterNo, afterConversion, stopAfterUnanswered }: Limits): boolean =>
  caps.length > 0 ||
  [afterClose, afterNo, afterConversion].some((pause) => pause !== 'none') ||
  stopAfterUnanswered !== null;

function compileExperiment({
  id,
  messageHash,
  languages,
  rule,
  variants,
  allotment,
}: CompiledFrom): ManifestCampaign['experiment'] {
  const { holdout } = rule.limits;
  if (holdout === 0 && variants.length === 0) return null;
  const buckets = allotment ?? allot(sharesOf(variants));
  const variant = (name: string, message: string, others: ByLanguage | undefined) => ({
    id: name,
    buckets: buckets[name] ?? [],
    message,
    ...(others ? { languages: others } : {}),
  });
  return {
    salt: id,
    holdout: (holdout * BUCKETS) / 100,
    variants: [
      variant(FIRST_VARIANT, messageHash, languages),
      ...variants.map(({ id: name, messageHash: message, languages: others, moment }) => ({
        ...variant(name, message, others),
        ...(moment ? { moment } : {}),
      })),
    ],
  };
}

/** The shares of a campaign's messages: what its variants leave of 100 is the first one's. */
export const sharesOf = (variants: readonly { readonly id: string; readonly weight: number }[]) => [
  { id: FIRST_VARIANT, weight: 100 - variants.reduce((sum, { weight }) => sum + weight, 0) },
  ...variants.map(({ id, weight }) => ({ id, weight })),
];

function compileCampaign(keysOfAddress: KeyReader, site: SitePages, from: CompiledFrom): ManifestCampaign {
  const { id, version, messageHash, languages, messages, rule, epoch } = from;
  const { include, exclude } = resolvePages(rule.reach.pages, site);
  const keysOf = (rules: readonly PageRule[]) => [
    ...new Set(
      rules.flatMap((page) => {
        if (page.kind !== 'exact') return [];
        const keys = keysOfAddress(page.address);
        return [keys.full ?? keys.path];
      }),
    ),
  ];
  const others = (rules: readonly PageRule[]) =>
    rules.flatMap((page) => compilePageRule(page, keysOfAddress) ?? []);
  const { limits } = rule;
  return {
    id,
    version,
    cells: cellsOf(messages),
    message: messageHash,
    ...(languages ? { languages } : {}),
    moment: rule.moment,
    includeKeys: keysOf(include),
    excludeKeys: keysOf(exclude),
    include: others(include),
    exclude: others(exclude),
    devices: rule.reach.devices.reduce((mask, device) => mask | (1 << DEVICE_AT[device]), 0),
    audience: compileAudience(rule.reach.audience, keysOfAddress),
    schedule: limits.schedule,
    caps: limits.caps,
    afterClose: limits.afterClose,
    afterNo: limits.afterNo,
    afterConversion: limits.afterConversion,
    stopAfterUnanswered: limits.stopAfterUnanswered,
    whenBusy: limits.whenBusy,
    priority: limits.priority,
    epoch,
    isForgetful:
      limits.withoutMemory === 'always' || (limits.withoutMemory === 'whenUncapped' && !needsMemory(limits)),
    experiment: compileExperiment(from),
  };
}

/** Pages a visit began at are compared as pages are told apart; the tag keeps their paths in the same form. */
function compileAudience(audience: Audience | null, keysOfAddress: KeyReader): Audience | null {
  if (!audience) return null;
  return {
    ...audience,
    groups: audience.groups.map((group) => ({
      ...group,
      items: group.items.map((item) =>
        item.condition.kind === 'landing'
          ? { ...item, condition: { ...item.condition, path: keysOfAddress(item.condition.path).path } }
          : item,
      ),
    })),
  };
}

/**
 * `/journal/` covers `/journal` itself and what lies below it, never `/journalism`; also where something follows it that is no part
 * of a page's name, as in `/journal/?utm_source=letter` or `/journal/#top`.
 */
function folderKey(address: string, key: string): string {
  // Of a route its own end counts.
  const said = key.includes('#') ? address : address.replace(/[?#].*$/s, '');
  return /[^:/]\/+$/.test(said) ? withSlash(key) : key;
}

/** What remains of a page rule at run time; exact pages become keys instead. */
export function compilePageRule(page: PageRule, keysOfAddress: KeyReader): CompiledPageRule | undefined {
  switch (page.kind) {
    case 'exact':
    // Resolved into the rules it names before.
    case 'group':
      return undefined;
    case 'begins': {
      const keys = keysOfAddress(page.address);
      return {
        kind: 'begins',
        key: folderKey(page.address, keys.full ?? keys.path),
        isWhole: keys.full !== null,
      };
    }
    case 'wildcard': {
      const keys = keysOfAddress(page.pattern);
      const program = compileWildcard(keys.full ?? keys.path);
      return { kind: 'program', program: writable(program), isWhole: keys.full !== null, isSeen: false };
    }
    case 'regex':
      return {
        kind: 'program',
        program: writable(compileRegex(page.pattern)),
        isWhole: page.pattern.includes('://'),
        isSeen: true,
      };
    case 'contains':
      return { kind: 'contains', text: seenAddress(page.text) };
    default:
      return page;
  }
}

const writable = (program: Program) => program as Extract<CompiledPageRule, { kind: 'program' }>['program'];
