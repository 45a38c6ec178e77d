import type {
  Anchor,
  Device,
  Format,
  Manifest,
  ManifestCampaign,
  SiteLimits,
  Trigger,
} from '@velarium/contract';
import { cellsOf } from '../arbitration/cells.ts';
import { createPageIndex } from '../manifest/page-index.ts';
import { PLAIN_STYLE } from '../message/plain.ts';
import type { Fact } from '../triggers/trigger.ts';
import { explain } from '../visit/explain.ts';
import { EXTRAS } from '../visit/extras.ts';
import { type Memory, NO_ARRIVAL, newMemory } from '../visit/memory.ts';
import { createPageView } from '../visit/page-view.ts';
import { RARE } from '../visit/rare.ts';
import type { PageViewFacts } from '../visit/visitor-facts.ts';
import { plainSettings } from './arbitrary.ts';

/** A page view with everything plain, of which a test says only what it is about. Seconds are since its beginning. */
export const START_MS = Date.UTC(2026, 10, 25, 20);
export const time = (seconds: number): Trigger => ({ kind: 'time', seconds });
const MODAL = { format: 'modal', anchor: 'center', style: PLAIN_STYLE } as const;
export type Placing = { readonly format: Format; readonly anchor: Anchor; readonly tablet?: Anchor };
export type Change = Partial<Omit<ManifestCampaign, 'moment'>> & {
  moment?: Partial<ManifestCampaign['moment']>;
};
export const campaign = (id: string, { moment, ...change }: Change = {}): ManifestCampaign => ({
  id,
  version: 1,
  cells: cellsOf([MODAL]),
  message: 'f'.repeat(32),
  moment: { join: 'any', triggers: [time(10)], notBeforeSeconds: 0, againAfterSeconds: null, ...moment },
  includeKeys: [],
  excludeKeys: [],
  include: [{ kind: 'every' }],
  exclude: [],
  devices: 7,
  audience: null,
  schedule: null,
  caps: [],
  afterClose: 'none',
  afterConversion: 'none',
  stopAfterUnanswered: null,
  whenBusy: 'wait',
  afterNo: 'none',
  priority: 5,
  epoch: 0,
  isForgetful: true,
  experiment: null,
  ...change,
});
export const atOnce: Change = { moment: { triggers: [time(0)] } };
export const on = (...triggers: Trigger[]): Change => ({ moment: { triggers } });

export const ids = { visitor: () => 'v', session: () => 's' };
export const memory = newMemory(ids, START_MS, NO_ARRIVAL);
export const at = (seconds: number) => ({ wallMs: START_MS + seconds * 1000, ticksMs: seconds * 1000 });
const facts: PageViewFacts = {
  kind: '',
  holds: () => false,
  signedIn: null,
  basket: null,
  attributes: {},
  languages: ['en'],
  country: null,
  browser: 'other',
  system: 'other',
  source: null,
  timeZone: () => 'UTC',
};

export interface Begin {
  readonly isVisible?: boolean;
  readonly limits?: Partial<SiteLimits>;
  readonly told?: Partial<PageViewFacts>;
  readonly device?: Device;
  readonly remembers?: boolean;
}

export function begin(
  campaigns: ManifestCampaign[],
  { isVisible = true, limits, told, device = 'desktop', remembers = true }: Begin = {},
) {
  const manifest: Manifest = {
    v: 1,
    parts: ['extras', 'rare'],
    asksEdge: false,
    timeZone: 'Europe/London',
    site: { ...plainSettings, limits: { ...plainSettings.limits, ...limits } },
    campaigns,
  };
  const index = createPageIndex(manifest, EXTRAS);
  const input = {
    manifest,
    index,
    href: 'https://s.example/a',
    device,
    facts: () => ({ ...facts, ...told }),
  } as const;
  const view = createPageView({
    ...input,
    pageKey: '/a',
    isVisible,
    remembers: () => remembers,
    now: at(0),
    extras: { ...EXTRAS, ...RARE },
  });
  return {
    ...view,
    /** Which opens at this second, everything that is said of it taken for what has happened. */
    opens(seconds: number, seen: Memory = memory) {
      const step = view.next(seen, at(seconds));
      view.settle(step, at(seconds));
      return step.open?.id;
    },
    show: (isVisible: boolean, seconds: number) => view.setVisible(isVisible, memory, at(seconds)),
    active: (seconds: number) => view.onActive(memory, at(seconds)),
    codes: (seconds: number, seen: Memory = memory) =>
      explain(view, input, seen, at(seconds)).map(({ code }) => code),
    tell: (fact: Fact, seconds: number) => view.onFact(fact, memory, at(seconds)),
    gone: (id: string, seconds: number) => view.onGone(id, memory, at(seconds)),
  };
}
