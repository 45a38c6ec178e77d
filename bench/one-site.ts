import type { Manifest, MessageFile, Rule } from '@velarium/contract';
import { compileManifest, NO_SITE_PAGES, PLAIN_LOOK, partsOf, TEMPLATES } from '@velarium/core';
import { sheetOf } from '@velarium/render/sheet';

const { message } = TEMPLATES[0] as (typeof TEMPLATES)[0];
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

/** The manifest of a site with a campaign for each of these rules, all of one message. */
export const manifestOf = (rules: readonly Rule[]): Manifest =>
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
      },
    },
    rules.map((rule, n) => ({
      id: `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`,
      version: 1,
      messageHash: 'f'.repeat(32),
      messages: [message],
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
