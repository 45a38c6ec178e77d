import type { Manifest, MessageFile, Rule, SiteSettings } from '@velarium/contract';
import {
  compileManifest,
  NO_SITE_PAGES,
  PLAIN_LOOK,
  PLAIN_STYLE,
  type PlacedMessage,
  partsOf,
  TEMPLATES,
} from '@velarium/core';
import { sheetOf } from '@velarium/render/sheet';

const { message } = TEMPLATES[0] as (typeof TEMPLATES)[0];
/** A small one in the middle, where what is drawn does not matter. */
export const PLACED: PlacedMessage = { format: 'popup', anchor: 'center', style: PLAIN_STYLE };
const BREAKPOINTS = { mobile: 768, tablet: 1024 };

export const LIMITS: Rule['limits'] = {
  caps: [{ max: 1, per: 'session' }],
  afterClose: 'session',
  afterNo: 'none',
  afterConversion: 'ever',
  stopAfterUnanswered: null,
  schedule: null,
  whenBusy: 'wait',
  priority: 5,
  withoutMemory: 'always',
  holdout: 0,
};

export const idOf = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

/** The manifest of a site with a campaign for each of these rules, all of one message. */
export const manifestOf = (
  rules: readonly Rule[],
  placed: PlacedMessage = message,
  settings: Partial<SiteSettings> = {},
): Manifest =>
  compileManifest(
    {
      timeZone: 'Europe/London',
      pages: NO_SITE_PAGES,
      settings: {
        sessionMinutes: 30,
        breakpoints: BREAKPOINTS,
        trackingParameters: ['utm_source'],
        pageParameters: [],
        limits: { perPageView: null, perSession: null, perDay: null, gapSeconds: 0 },
        privacy: { memory: 'assumed', honoursSignal: true },
        hashRoutes: false,
        sharedDomain: null,
        recordedFacts: null,
        ...settings,
      },
    },
    rules.map((rule, n) => ({
      id: idOf(n),
      version: 1,
      messageHash: 'f'.repeat(32),
      messages: [placed],
      rule,
      epoch: 0,
      asksFacts: false,
      variants: [],
    })),
  );

export const FILE: MessageFile = {
  message,
  sheet: sheetOf(message, { look: PLAIN_LOOK, breakpoints: BREAKPOINTS, pictures: {}, pictureBase: '' }),
  pictures: {},
  parts: partsOf(message, PLAIN_LOOK),
};
