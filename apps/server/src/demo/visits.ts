import type { StoredEvent } from '../intake/index.ts';
import { inventedBeginning, inventedParameters, inventedTold } from './came-from.ts';
import { seededRandom } from './random.ts';

export interface DemoTraffic {
  readonly siteId: string;
  readonly campaignId: string;
  readonly page: string;
  readonly visitors: number;
  /** Share of the visitors who convert. */
  readonly rate: number;
  readonly seed: number;
}

const DAY_MS = 86_400_000;

const uuidsFrom = (random: () => number) => () =>
  '10000000-1000-4000-8000-100000000000'.replace(/[018]/g, (digit) =>
    (Number(digit) ^ ((random() * 16) >> (Number(digit) / 4))).toString(16),
  );

/** How long half of the visits to a page of each kind last at least, seconds, and how far they go, per cent. */
const STAYS: Readonly<Record<string, { readonly seconds: number; readonly depth: number }>> = {
  article: { seconds: 52, depth: 62 },
  product: { seconds: 24, depth: 70 },
  website: { seconds: 15, depth: 55 },
};
const PHONE_SHARE = 0.46;
const TABLET_SHARE = 0.08;

/** Invented visits to every page of a site over the past six days: one view a page, and how it ended. */
export function demoStays(
  siteId: string,
  pages: readonly { readonly path: string; readonly kind: string | null }[],
  now: Date,
): StoredEvent[] {
  const random = seededRandom(77);
  const uuid = uuidsFrom(random);
  // Sums of three even numbers lie about as bell curves do.
  const bell = () => random() + random() + random() - 1.5;
  return pages.flatMap(({ path, kind }, place) => {
    const plain = STAYS[kind ?? ''] ?? { seconds: 18, depth: 58 };
    const visits = Math.round(900 / (1 + (place % 6)) + (path === '/' ? 1400 : 0));
    return Array.from({ length: visits }, () => {
      const one = random();
      const device = one < PHONE_SHARE ? 'mobile' : one < PHONE_SHARE + TABLET_SHARE ? 'tablet' : 'desktop';
      const seconds = plain.seconds * (device === 'mobile' ? 0.66 : 1) * Math.exp(bell() * 1.3);
      const depth = 22 + plain.depth * (0.5 + bell() * 0.55);
      const atMs = now.getTime() - DAY_MS / 24 - random() * 6 * DAY_MS;
      const [visitor, session, view] = [uuid(), uuid(), uuid()];
      const [begun, told] = [inventedBeginning(random, device), inventedTold(random)];
      const landing = path + inventedParameters(random);
      const event = (ofKind: string, afterMs: number, stay: StoredEvent['stay']): StoredEvent => ({
        id: stay ? uuid() : view,
        at: new Date(atMs + afterMs),
        isLate: false,
        ownAt: null,
        siteId,
        kind: ofKind,
        visitor,
        session,
        page: landing,
        path,
        device,
        campaign: null,
        version: null,
        closedBy: null,
        variant: null,
        stay,
        view: stay && view,
        cause: null,
        goal: null,
        worth: null,
        begun: ofKind === 'pageview' ? begun : null,
        told: ofKind === 'left' ? told : null,
      });
      return [
        event('pageview', 0, null),
        event('left', seconds * 1000, [
          Math.min(3600, Math.round(seconds)),
          Math.round(Math.min(100, Math.max(12, depth))),
        ]),
      ];
    }).flat();
  });
}

/** Invented showings of one campaign over the past six days, repeatable from the seed. */
export function demoEvents(traffic: DemoTraffic, now: Date): StoredEvent[] {
  const random = seededRandom(traffic.seed);
  const uuid = uuidsFrom(random);
  return Array.from({ length: traffic.visitors }, () => {
    const visitor = uuid();
    const session = uuid();
    const atMs = now.getTime() - random() * 6 * DAY_MS;
    const device = random() < 0.62 ? 'desktop' : 'mobile';
    const event = (kind: string, afterMs: number, closedBy: string | null = null): StoredEvent => ({
      id: uuid(),
      at: new Date(Math.min(now.getTime(), atMs + afterMs)),
      isLate: false,
      ownAt: null,
      siteId: traffic.siteId,
      kind,
      visitor,
      session,
      page: traffic.page,
      path: traffic.page,
      device,
      campaign: kind === 'pageview' ? null : traffic.campaignId,
      version: kind === 'pageview' ? null : 1,
      closedBy,
      variant: null,
      stay: null,
      view: null,
      cause: null,
      goal: null,
      worth: null,
      begun: kind === 'pageview' ? inventedBeginning(random, device) : null,
      told: null,
    });
    const isConverted = random() < traffic.rate;
    const again = random() < 0.18 ? [event('shown', 3_600_000)] : [];
    return [
      event('pageview', 0),
      event('shown', 8000),
      event('viewable', 9000),
      ...again,
      isConverted ? event('converted', 21_000) : event('closed', 14_000, 'button'),
    ];
  }).flat();
}
