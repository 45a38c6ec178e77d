import type {
  CompiledPageRule,
  Manifest,
  ManifestCampaign,
  Message,
  PageRule,
  Rule,
  SiteSettings,
} from '@velarium/contract';
import { DEVICE_BIT } from '../devices/device.ts';
import { pageKeys, trackingTest } from '../pages/page-key.ts';
import { compileRegex, compileWildcard, type Program } from '../patterns/compile.ts';

/** A published campaign as the compiler takes it, in order of precedence. */
export interface CompiledFrom {
  readonly id: string;
  readonly version: number;
  readonly messageHash: string;
  readonly message: Pick<Message, 'format' | 'anchor'>;
  readonly rule: Rule;
}

/** Compiles published rules into what the tag needs to decide: normalised page keys apart, bits for devices. */
export function compileManifest(
  site: { readonly settings: SiteSettings; readonly timeZone: string },
  campaigns: readonly CompiledFrom[],
): Manifest {
  return {
    v: 1,
    timeZone: site.timeZone,
    site: site.settings,
    campaigns: campaigns.map((campaign) => compileCampaign(site.settings, campaign)),
  };
}

function compileCampaign(
  site: SiteSettings,
  { id, version, messageHash, message, rule }: CompiledFrom,
): ManifestCampaign {
  const isTracking = trackingTest(site.trackingParameters);
  const { include, exclude } = rule.reach.pages;
  const keysOf = (rules: readonly PageRule[]) => [
    ...new Set(
      rules.flatMap((page) => {
        if (page.kind !== 'exact') return [];
        const keys = pageKeys(page.address, isTracking);
        return [keys.full ?? keys.path];
      }),
    ),
  ];
  const others = (rules: readonly PageRule[]) =>
    rules.flatMap((page) => compilePageRule(page, isTracking) ?? []);
  const { caps, afterClose, afterConversion, stopAfterUnanswered, schedule, whenBusy } = rule.limits;
  return {
    id,
    version,
    format: message.format,
    anchor: message.anchor,
    message: messageHash,
    moment: rule.moment,
    includeKeys: keysOf(include),
    excludeKeys: keysOf(exclude),
    include: others(include),
    exclude: others(exclude),
    devices: rule.reach.devices.reduce((mask, device) => mask | DEVICE_BIT[device], 0),
    audience: rule.reach.audience,
    schedule,
    caps,
    afterClose,
    afterConversion,
    stopAfterUnanswered,
    whenBusy,
  };
}

/** What remains of a page rule at run time; exact pages become keys instead. */
function compilePageRule(
  page: PageRule,
  isTracking: (name: string) => boolean,
): CompiledPageRule | undefined {
  switch (page.kind) {
    case 'exact':
      return undefined;
    case 'begins': {
      const keys = pageKeys(page.address, isTracking);
      const key = keys.full ?? keys.path;
      // `/journal/` covers `/journal` itself and what lies below it, never `/journalism`.
      const isFolder = /[^:/]\/+([?#]|$)/.test(page.address);
      return {
        kind: 'begins',
        key: isFolder && !key.endsWith('/') ? `${key}/` : key,
        isWhole: keys.full !== null,
      };
    }
    case 'wildcard': {
      const keys = pageKeys(page.pattern, isTracking);
      const program = compileWildcard(keys.full ?? keys.path);
      return { kind: 'program', program: writable(program), isWhole: keys.full !== null };
    }
    case 'regex':
      return { kind: 'program', program: writable(compileRegex(page.pattern)), isWhole: false };
    default:
      return page;
  }
}

const writable = (program: Program) => program as Extract<CompiledPageRule, { kind: 'program' }>['program'];
