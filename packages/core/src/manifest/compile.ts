import type { Manifest, ManifestCampaign, Message, PageRule, Rule, SiteSettings } from '@velarium/contract';
import { DEVICE_BIT } from '../devices/device.ts';
import { pageKeys, trackingTest } from '../pages/page-key.ts';

/** A published campaign as the compiler takes it, in order of precedence. */
export interface CompiledFrom {
  readonly id: string;
  readonly version: number;
  readonly messageHash: string;
  readonly message: Pick<Message, 'format'>;
  readonly rule: Rule;
}

/** Compiles published rules into what the tag needs to decide: normalised page keys, bits and milliseconds. */
export function compileManifest(site: SiteSettings, campaigns: readonly CompiledFrom[]): Manifest {
  return { v: 1, site, campaigns: campaigns.map((campaign) => compileCampaign(site, campaign)) };
}

function compileCampaign(
  site: SiteSettings,
  { id, version, messageHash, message, rule }: CompiledFrom,
): ManifestCampaign {
  const isTracking = trackingTest(site.trackingParameters);
  const { include, exclude } = rule.reach.pages;
  const isEvery = (page: PageRule) => page.kind === 'every';
  const keysOf = (rules: readonly PageRule[]) =>
    rules.flatMap((page) => {
      if (page.kind === 'every') return [];
      const keys = pageKeys(page.address, isTracking);
      return [keys.full ?? keys.path];
    });
  // Excluding every page leaves none: an empty include list says the same in fewer words.
  const isNowhere = exclude.some(isEvery);
  return {
    id,
    version,
    format: message.format,
    message: messageHash,
    afterMs: Math.min(...rule.moment.triggers.map((trigger) => Math.round(trigger.seconds * 1000))),
    include: isNowhere ? [] : include.some(isEvery) ? null : [...new Set(keysOf(include))],
    exclude: isNowhere ? [] : [...new Set(keysOf(exclude))],
    devices: rule.reach.devices.reduce((mask, device) => mask | DEVICE_BIT[device], 0),
    caps: rule.limits.caps,
    afterClose: rule.limits.afterClose,
    afterConversion: rule.limits.afterConversion,
  };
}
