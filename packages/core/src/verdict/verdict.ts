import type { AudienceItem, Device } from '@velarium/contract';

/**
 * What became of one campaign on one page view. Gates are asked in this order and the first to object answers:
 * schedule, page, device, audience, memory, caps (converted, refused, closed, unanswered, showings), page view,
 * trigger, site limits, floor, holdout.
 */
export type Verdict =
  | {
      readonly code: 'blocked:schedule.before' | 'blocked:schedule.closed';
      readonly retryAtMs: number | null;
    }
  | { readonly code: 'blocked:schedule.after' }
  | { readonly code: 'blocked:page.nowhere' | 'blocked:page.unmatched' | 'blocked:page.excluded' }
  | { readonly code: 'blocked:device'; readonly device: Device }
  /** `failing` is there where somebody asks why. */
  | { readonly code: 'blocked:audience'; readonly failing?: readonly AudienceItem[] }
  | { readonly code: 'blocked:memory' }
  | {
      readonly code:
        | 'blocked:cap.converted'
        | 'blocked:cap.refused'
        | 'blocked:cap.closed'
        | 'blocked:cap.unanswered'
        | 'blocked:cap.showings';
      readonly retryAtMs: number | null;
    }
  | { readonly code: 'blocked:page.view' | 'blocked:unreachable' }
  | { readonly code: 'blocked:yielded'; readonly to: string }
  /** `remainingMs` is `null` when only something the visitor or the page does can end the waiting. */
  | { readonly code: 'waiting:trigger'; readonly remainingMs: number | null }
  | {
      readonly code:
        | 'blocked:limit.pageView'
        | 'blocked:limit.session'
        | 'blocked:limit.day'
        | 'blocked:limit.gap';
      readonly retryAtMs: number | null;
    }
  | { readonly code: 'waiting:floor'; readonly heldBy: string }
  | { readonly code: 'held:holdout' }
  | { readonly code: 'ready' }
  | { readonly code: 'shown' };

const DEVICE_NAME: Readonly<Record<Device, string>> = {
  desktop: 'a desktop',
  tablet: 'a tablet',
  mobile: 'a phone',
};

const REASON: Readonly<Partial<Record<Verdict['code'], string>>> = {
  'blocked:schedule.before': 'it has not begun yet',
  'blocked:schedule.closed': 'its schedule leaves this time out',
  'blocked:schedule.after': 'it has ended',
  'blocked:page.nowhere': 'its rule names no page',
  'blocked:page.unmatched': 'this page is not among its pages',
  'blocked:page.excluded': 'this page is taken out of its pages',
  'blocked:audience': 'this visitor is not in its audience',
  'blocked:memory': 'nothing can be remembered of this visitor, and its limits need that',
  'blocked:cap.converted': 'this visitor has already converted',
  'blocked:cap.refused': 'this visitor said no',
  'blocked:cap.closed': 'this visitor closed it',
  'blocked:cap.unanswered': 'this visitor has left it unanswered often enough',
  'blocked:cap.showings': 'this visitor has seen it as often as it may be seen',
  'blocked:page.view': 'it opens once in a page view',
  'blocked:unreachable': 'its message could not be fetched',
  'blocked:yielded': 'it gave way to another message on this page view',
  'blocked:limit.pageView': 'the site allows no more messages on this page view',
  'blocked:limit.session': 'the site allows no more messages in this session',
  'blocked:limit.day': 'the site allows no more messages today',
  'held:holdout': 'this visitor is among those it is held back from',
  'blocked:limit.gap': 'the last message was too short a time ago',
};

/** The verdict in one plain sentence. `write` puts an instant (epoch milliseconds) into the reader's words. */
export function verdictSentence(verdict: Verdict, write: (atMs: number) => string): string {
  switch (verdict.code) {
    case 'blocked:device':
      return `Not shown, because it is not meant for ${DEVICE_NAME[verdict.device]}.`;
    case 'waiting:trigger':
      return verdict.remainingMs === null
        ? 'Waiting for its moment.'
        : `Waiting: it opens after ${Math.ceil(verdict.remainingMs / 100) / 10} s more.`;
    case 'waiting:floor':
      return 'Waiting, because another message has the floor.';
    case 'ready':
      return 'Ready: it opens now.';
    case 'shown':
      return 'Shown.';
    default: {
      const retryAtMs = 'retryAtMs' in verdict ? verdict.retryAtMs : null;
      const lifts = retryAtMs === null ? '' : ` It may show again from ${write(retryAtMs)}.`;
      return `Not shown, because ${REASON[verdict.code]}.${lifts}`;
    }
  }
}
