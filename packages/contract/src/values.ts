/**
 * Closed vocabularies and fixed limits that cross boundaries. Free of Zod, so the tag and core may import them.
 */

export const FORMATS = ['popup', 'modal', 'flyin', 'slidein', 'bar', 'fullscreen'] as const;
export type Format = (typeof FORMATS)[number];

/** The nine places of the window a message can hold on to. `start` and `end` follow the reading direction. */
export const ANCHORS = [
  'top-start',
  'top',
  'top-end',
  'start',
  'center',
  'end',
  'bottom-start',
  'bottom',
  'bottom-end',
] as const;
export type Anchor = (typeof ANCHORS)[number];

export const DEVICES = ['desktop', 'tablet', 'mobile'] as const;
export type Device = (typeof DEVICES)[number];

export const CAMPAIGN_STATES = ['draft', 'scheduled', 'running', 'resting', 'ended', 'archived'] as const;
export type CampaignState = (typeof CAMPAIGN_STATES)[number];

export const ROLES = ['owner', 'editor', 'viewer'] as const;
export type Role = (typeof ROLES)[number];

export const SPAN_UNITS = ['minutes', 'hours', 'days', 'weeks', 'months'] as const;
export type SpanUnit = (typeof SPAN_UNITS)[number];

export const EVENT_KINDS = ['pageview', 'shown', 'viewable', 'closed', 'clicked', 'converted'] as const;
export type EventKind = (typeof EVENT_KINDS)[number];

/** What a visitor did to make a message go away. */
export const CLOSE_WAYS = ['button', 'escape', 'backdrop', 'action', 'script'] as const;
export type CloseWay = (typeof CLOSE_WAYS)[number];

export const FIELD_KINDS = ['email', 'name', 'phone', 'text'] as const;
export type FieldKind = (typeof FIELD_KINDS)[number];

/** Campaign ids of the public edge, page paths and the like never grow past these. */
export const LIMITS = {
  /** Longest time on page a trigger may wait for, in seconds. */
  triggerSeconds: 3600,
  campaignName: 120,
  pageAddress: 2048,
  fieldValue: 4000,
  /** Events in one call of `/collect`. */
  collectEvents: 50,
  collectBytes: 64 * 1024,
  submitBytes: 64 * 1024,
  blocksPerStep: 80,
  steps: 12,
} as const;

/** Parameters that tell where a visit came from and never which page it is (common practice). */
export const TRACKING_PARAMETERS = [
  'utm_source',
  'utm_medium',
  'utm_campaign',
  'utm_term',
  'utm_content',
  'utm_id',
  'mc_cid',
  'mc_eid',
  'ref',
] as const;

/** How sure the pointer must be of leaving through the top of the window. */
export const EXIT_CERTAINTIES = ['early', 'likely', 'certain'] as const;
export type ExitCertainty = (typeof EXIT_CERTAINTIES)[number];

export const COMPARISONS = ['atLeast', 'atMost', 'exactly'] as const;
export type Comparison = (typeof COMPARISONS)[number];

/** Where a visit came from, as far as its referrer and parameters tell. */
export const SOURCES = ['direct', 'search', 'social', 'mail', 'site'] as const;
export type Source = (typeof SOURCES)[number];
