import type { StoredEvent } from '../src/intake/index.ts';
import { randomVisitor } from './server.ts';

let made = 0;
/** An event as intake stores it, of so long ago. */
export const storedEvent = (
  site: { readonly siteId: string; readonly campaign: string },
  kind: string,
  agoMs: number,
  more: Partial<StoredEvent> = {},
): StoredEvent => ({
  id: `00000000-0000-7000-8000-${(++made).toString(16).padStart(12, '0')}`,
  at: new Date(Date.now() - agoMs),
  isLate: false,
  ownAt: null,
  siteId: site.siteId,
  kind,
  visitor: randomVisitor(),
  session: '00000000-0000-7000-8000-000000000000',
  page: '/tours',
  path: '/tours',
  device: 'desktop',
  campaign: site.campaign,
  version: 1,
  closedBy: null,
  variant: null,
  stay: null,
  view: null,
  cause: null,
  part: null,
  language: null,
  goal: null,
  worth: null,
  begun: null,
  told: null,
  ...more,
});
