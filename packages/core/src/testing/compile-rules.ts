import type { Manifest, Rule, SiteSettings } from '@velarium/contract';
import { compileManifest } from '../manifest/compile.ts';
import type { SitePages } from '../pages/resolve-pages.ts';
import { plainMessage, plainSettings } from './arbitrary.ts';

export const campaignId = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

/** The manifest of a site with a campaign for each of these rules. */
export const compileRules = (
  rules: readonly Rule[],
  pages: SitePages = { rulesOfGroup: () => undefined, pagesOfCampaign: () => undefined },
  settings: Partial<SiteSettings> = {},
): Manifest =>
  compileManifest(
    { settings: { ...plainSettings, ...settings }, timeZone: 'Europe/London', pages },
    rules.map((rule, n) => ({
      id: campaignId(n),
      version: 1,
      messageHash: 'f'.repeat(32),
      messages: [plainMessage],
      rule,
      epoch: 0,
      asksFacts: false,
      variants: [],
    })),
  );
