import type { Device, Manifest, ManifestCampaign } from '@velarium/contract';
import { failingConditions } from '../audience/audience.ts';
import { hasDevice } from '../devices/device.ts';
import { fitOf } from '../manifest/page-fit.ts';
import type { PageReading } from '../manifest/page-index.ts';
import type { Verdict } from '../verdict/verdict.ts';
import type { Memory } from './memory.ts';
import type { Now, PageView, PageViewInput } from './page-view.ts';
import { visitorFacts } from './visitor-facts.ts';

export { audienceItemWords } from '../sentence/reach-words.ts';
export { type Verdict, verdictSentence } from '../verdict/verdict.ts';
export {
  isPretending,
  NOTHING_PRETENDED,
  type Pretended,
  pretendedFacts,
  pretendedMemory,
  pretendedWords,
  readPretended,
} from './pretend.ts';

/** Whether a campaign's page rules let it through on no page at all. */
export const isNowhere = ({ includeKeys, include, exclude }: ManifestCampaign): boolean =>
  includeKeys.length + include.length === 0 || exclude.some(({ kind }) => kind === 'every');

/** What page and device have against each campaign of a manifest, in its order; nothing where both let it through. */
export const pageVerdicts = (
  { campaigns }: Pick<Manifest, 'campaigns'>,
  readings: readonly PageReading[],
  device: Device,
): (Verdict | undefined)[] =>
  campaigns.map((campaign, position) => {
    const fit = fitOf(readings[position] as PageReading);
    if (fit !== 'fits') return { code: `blocked:page.${isNowhere(campaign) ? 'nowhere' : fit}` };
    return hasDevice(campaign.devices, device) ? undefined : { code: 'blocked:device', device };
  });

/** A verdict with all that can be said of it: of an audience, what fails in it. */
export const inFull = (
  verdict: Verdict,
  { id, audience }: ManifestCampaign,
  facts: PageViewInput['facts'],
  memory: Memory,
): Verdict =>
  verdict.code === 'blocked:audience' && audience
    ? { ...verdict, failing: failingConditions(audience, visitorFacts(memory, facts()), id) }
    : verdict;

/**
 * One verdict for every campaign of a manifest on a page view, in its order: why each is shown or is not. Apart from
 * the page view itself, since the tag only needs to know what opens.
 */
export function explain(
  view: PageView,
  {
    manifest,
    index,
    href,
    device,
    facts,
  }: Pick<PageViewInput, 'index' | 'href' | 'device' | 'facts'> & { manifest: Manifest },
  memory: Memory,
  now: Now,
): Verdict[] {
  const ofPage = pageVerdicts(manifest, index.read(href, facts()), device);
  return manifest.campaigns.map(
    (campaign, position) =>
      view.scheduleVerdict(campaign, now) ??
      ofPage[position] ??
      inFull(view.verdictOf(campaign, memory, now), campaign, facts, memory),
  );
}
