import type { StoredEvent } from '../intake/index.ts';
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

/** Invented showings of one campaign over the past six days, repeatable from the seed. */
export function demoEvents(traffic: DemoTraffic, now: Date): StoredEvent[] {
  const random = seededRandom(traffic.seed);
  const uuid = () =>
    '10000000-1000-4000-8000-100000000000'.replace(/[018]/g, (digit) =>
      (Number(digit) ^ ((random() * 16) >> (Number(digit) / 4))).toString(16),
    );
  return Array.from({ length: traffic.visitors }, () => {
    const visitor = uuid();
    const session = uuid();
    const atMs = now.getTime() - random() * 6 * DAY_MS;
    const device = random() < 0.62 ? 'desktop' : 'mobile';
    const event = (kind: string, afterMs: number, closedBy: string | null = null): StoredEvent => ({
      id: uuid(),
      at: new Date(Math.min(now.getTime(), atMs + afterMs)),
      siteId: traffic.siteId,
      kind,
      visitor,
      session,
      page: traffic.page,
      device,
      campaign: kind === 'pageview' ? null : traffic.campaignId,
      version: kind === 'pageview' ? null : 1,
      closedBy,
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
