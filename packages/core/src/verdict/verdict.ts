import type { Device } from '@velarium/contract';

/**
 * What became of one campaign on one page view. Gates are asked in this order and the first to object answers:
 * page, device, caps (converted, closed, showings), page view, trigger, other messages.
 */
export type Verdict =
  | { readonly code: 'blocked:page.nowhere' }
  | { readonly code: 'blocked:page.unmatched' }
  | { readonly code: 'blocked:page.excluded' }
  | { readonly code: 'blocked:device'; readonly device: Device }
  | {
      readonly code: 'blocked:cap.converted' | 'blocked:cap.closed' | 'blocked:cap.showings';
      readonly retryAtMs: number | null;
    }
  | { readonly code: 'blocked:page.view' }
  | { readonly code: 'waiting:trigger'; readonly remainingMs: number }
  | { readonly code: 'waiting:message'; readonly openCampaign: string }
  | { readonly code: 'ready' }
  | { readonly code: 'shown' };

const DEVICE_NAME: Readonly<Record<Device, string>> = {
  desktop: 'a desktop',
  tablet: 'a tablet',
  mobile: 'a phone',
};

const lifts = (retryAtMs: number | null, write: (atMs: number) => string) =>
  retryAtMs === null ? '' : ` It may show again from ${write(retryAtMs)}.`;

/** The verdict in one plain sentence. `write` puts an instant (epoch milliseconds) into the reader's words. */
export function verdictSentence(verdict: Verdict, write: (atMs: number) => string): string {
  switch (verdict.code) {
    case 'blocked:page.nowhere':
      return 'Not shown, because its rule names no page.';
    case 'blocked:page.unmatched':
      return 'Not shown, because this page is not among its pages.';
    case 'blocked:page.excluded':
      return 'Not shown, because this page is taken out of its pages.';
    case 'blocked:device':
      return `Not shown, because it is not meant for ${DEVICE_NAME[verdict.device]}.`;
    case 'blocked:cap.converted':
      return `Not shown, because this visitor has already converted.${lifts(verdict.retryAtMs, write)}`;
    case 'blocked:cap.closed':
      return `Not shown, because this visitor closed it.${lifts(verdict.retryAtMs, write)}`;
    case 'blocked:cap.showings':
      return `Not shown, because this visitor has seen it as often as it may be seen.${lifts(verdict.retryAtMs, write)}`;
    case 'blocked:page.view':
      return 'Not shown again, because it opens once in a page view.';
    case 'waiting:trigger':
      return `Waiting: it opens after ${Math.ceil(verdict.remainingMs / 100) / 10} s more on the page.`;
    case 'waiting:message':
      return 'Waiting, because another message is open.';
    case 'ready':
      return 'Ready: it opens now.';
    case 'shown':
      return 'Shown.';
  }
}
