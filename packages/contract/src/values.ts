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

/**
 * `held` is a showing that the holdout withheld; `refused` is a visitor's "no"; `shared` passed the page on; `answering`
 * is the first a visitor writes into a field; `reached` is a goal that an event of the page has told of; `left` ends a page
 * view, or may have.
 */
export const EVENT_KINDS = [
  'pageview',
  'shown',
  'viewable',
  'closed',
  'clicked',
  'converted',
  'held',
  'refused',
  'shared',
  'answering',
  'reached',
  'left',
] as const;
export type EventKind = (typeof EVENT_KINDS)[number];

/** What a visitor did to make a message go away. */
export const CLOSE_WAYS = ['button', 'escape', 'backdrop', 'action', 'script', 'time'] as const;
export type CloseWay = (typeof CLOSE_WAYS)[number];

/** What a form may ask for. The first four are drawn by every renderer; the others come with its further blocks. */
export const FIELD_KINDS = [
  'email',
  'name',
  'phone',
  'text',
  'long',
  'select',
  'ticks',
  'date',
  'file',
  'hidden',
] as const;
export type FieldKind = (typeof FIELD_KINDS)[number];

/** Parts a colour plays in a Look; a message names the part, and the Look says the colour. */
export const COLOUR_ROLES = [
  'surface',
  'ink',
  'soft',
  'accent',
  'accentText',
  'line',
  'field',
  'fieldText',
  'backdrop',
] as const;
export type ColourRole = (typeof COLOUR_ROLES)[number];

/** Kinds of letters that every device has. */
export const FONTS = ['sans', 'serif', 'round', 'narrow', 'mono'] as const;
export type Font = (typeof FONTS)[number];

export const SHADOWS = ['none', 'hair', 'lifted', 'floating'] as const;
export type Shadow = (typeof SHADOWS)[number];

export const SIDES_OF_PICTURE = ['flow', 'top', 'start', 'end', 'bottom', 'behind'] as const;
export type SideOfPicture = (typeof SIDES_OF_PICTURE)[number];

/** How a message comes and goes. */
export const MOTIONS = [
  'none',
  'fade',
  'drift',
  'sweep',
  'grow',
  'turn',
  'swing',
  'drop',
  'unroll',
  'focus',
] as const;
export type MotionKind = (typeof MOTIONS)[number];
export const DIRECTIONS = ['top', 'bottom', 'start', 'end'] as const;
export type Direction = (typeof DIRECTIONS)[number];
export const EASINGS = ['even', 'soft', 'brisk', 'springy'] as const;
export type Easing = (typeof EASINGS)[number];
/** What a button does when a pointer comes over it. */
export const ATTENTIONS = ['none', 'lift', 'swell', 'sheen', 'nudge'] as const;

export const COUNTDOWN_UNITS = ['days', 'hours', 'minutes', 'seconds'] as const;
export type CountdownUnit = (typeof COUNTDOWN_UNITS)[number];

/** Parts of the renderer that are loaded where a message needs them: forms, and what is rarer still. */
export const MESSAGE_PARTS = ['form', 'behind', 'further', 'letters'] as const;
export type MessagePart = (typeof MESSAGE_PARTS)[number];

/** Block kinds drawn by the part of the renderer that most messages do not need. */
export const FURTHER_BLOCKS = ['code', 'countdown', 'share', 'count', 'film', 'frame', 'html'] as const;

/** Campaign ids of the public edge, page paths and the like never grow past these. */
export const LIMITS = {
  /** Longest time on page a trigger may wait for, in seconds. */
  triggerSeconds: 3600,
  /** Of a schedule: stretches of each day, and stretches of days left out. */
  hours: 8,
  blackouts: 60,
  campaignName: 120,
  pageAddress: 2048,
  fieldValue: 4000,
  /** Pages a site's catalogue holds at most. */
  pagesOfSite: 20_000,
  /** Longest stay on a page that is told apart, in seconds. */
  staySeconds: 3600,
  /** Events in one call of `/collect`. */
  collectEvents: 50,
  collectBytes: 64 * 1024,
  /** What a page looks like in a browser, as markup, and the call that says so. */
  sightLetters: 1_000_000,
  sightBytes: 5 * 1024 * 1024,
  /** A form's answers with the pictures that go with them. */
  submitBytes: 6 * 1024 * 1024,
  /** One picture that goes with an answer. */
  fileBytes: 4 * 1024 * 1024,
  blocksPerStep: 80,
  /** Languages a message can have beside the one it is written in. */
  languages: 30,
  steps: 12,
  /** The law of the way out: a close button comes at the latest after this many seconds. */
  closeDelaySeconds: 5,
} as const;

/** Page views read at most for one replay of traffic. */
export const MOST_TRAFFIC = 30_000;
/** Pages of one visitor that are replayed; who reads more is a machine, or a tab that is never closed. */
export const MOST_PAGES_OF_VISITOR = 50;

/** Days over which it is told how often a campaign was met on a page. */
export const MET_ON_DAYS = 28;
/** Cells of the map of which it is told how often they were met: those of most showings. */
export const MET_CELLS = 50_000;

/** Letters of what a team writes down about a campaign for itself. */
export const MOST_NOTE = 1000;

/** Parameters that tell where a visit came from and never which page it is. The utm parameters by their public convention. */
export const TRACKING_PARAMETERS = [
  'utm_source',
  'utm_medium',
  'utm_campaign',
  'utm_term',
  'utm_content',
  'utm_id',
  'ref',
] as const;

/** How sure the pointer must be of leaving through the top of the window. */
export const EXIT_CERTAINTIES = ['early', 'likely', 'certain'] as const;
export type ExitCertainty = (typeof EXIT_CERTAINTIES)[number];

export const COMPARISONS = ['atLeast', 'atMost', 'exactly'] as const;
export type Comparison = (typeof COMPARISONS)[number];

/** Families of browsers, by the engine they are built on. */
export const BROWSERS = ['chromium', 'gecko', 'webkit', 'other'] as const;
export type Browser = (typeof BROWSERS)[number];

export const SYSTEMS = ['ios', 'android', 'windows', 'macos', 'linux', 'other'] as const;
export type System = (typeof SYSTEMS)[number];

/** Parts of the tag that decide, loaded only where a site's campaigns need them. */
export const TAG_PARTS = ['extras', 'rare'] as const;
export type TagPart = (typeof TAG_PARTS)[number];

/** `whenUncapped`: only a campaign that needs no memory of earlier pages. */
export const WITHOUT_MEMORY = ['whenUncapped', 'always', 'never'] as const;

/** What "normal" is among the nine priorities; the higher goes first. */
export const NORMAL_PRIORITY = 5;

/** Shares are given out in this many buckets. */
export const BUCKETS = 10_000;

/** Where a visit came from, as far as its referrer and parameters tell. */
export const SOURCES = ['direct', 'search', 'social', 'mail', 'site'] as const;
export type Source = (typeof SOURCES)[number];
/** What a host that people come from can be known to be. */
export const REFERRER_KINDS = ['search', 'social', 'mail'] as const;
export type ReferrerKind = (typeof REFERRER_KINDS)[number];

/** The public name of a site, in the address of its tag. */
export const SITE_KEY = /^[a-z0-9]{12}$/;

/** How a person stands to being written to. Whoever is erased is no person any more. */
export const PERSON_STATES = ['agreed', 'waiting', 'confirmed', 'left'] as const;
export type PersonState = (typeof PERSON_STATES)[number];

/** Why an answer is kept apart until somebody has looked at it. */
export const HELD_REASONS = [
  'tooSoon',
  'unseenField',
  'manyFromAddress',
  'manyFromVisitor',
  'manyOnSite',
] as const;
export type HeldReason = (typeof HELD_REASONS)[number];

/** What can go out, and to whom: to the person, to the team, to a member, to another service. */
export const DELIVERY_KINDS = [
  'confirmation',
  'reminder',
  'welcome',
  'notice',
  'digest',
  'week',
  'trial',
  'alert',
  'invitation',
  'password',
  'agreement',
  'event',
  'request',
] as const;
export type DeliveryKind = (typeof DELIVERY_KINDS)[number];
/** `waiting` for its time, `retrying` after a failure, `held` while its connection rests, `stopped` by a person or a law. */
export const DELIVERY_STATES = ['waiting', 'retrying', 'sent', 'givenUp', 'held', 'stopped'] as const;
export type DeliveryState = (typeof DELIVERY_STATES)[number];

/** What another service can be told of. */
export const TOLD_EVENTS = [
  'answer.stored',
  'person.confirmed',
  'person.left',
  'person.erased',
  'campaign.published',
  'campaign.rested',
] as const;
export type ToldEvent = (typeof TOLD_EVENTS)[number];

/** The header of an export that says how many answers it will hold. */
export const ANSWERS_HEADER = 'velarium-answers';

/** Days that results are asked of: today, yesterday, the last so many with today, all since the first, or any. */
export const RESULT_PERIODS = ['today', 'yesterday', '7', '28', '90', 'launch', 'own'] as const;
export type ResultPeriod = (typeof RESULT_PERIODS)[number];
/** What they are held against: as many days before, the same weekdays before, nothing, or any. */
export const RESULT_AGAINST = ['before', 'weekdays', 'none', 'own'] as const;
export type ResultAgainst = (typeof RESULT_AGAINST)[number];
/** Single events are kept so many days at least: forecasts, goals and what came late look that far back. */
export const LEAST_EVENT_DAYS = 31;
/** What goes after a time is kept so many days at most; else for ever. */
export const MOST_KEPT_DAYS = 3650;
/** How many messages met on one day are told apart; the last is this many or more. */
export const MET_ON_A_DAY = 5;
/** By what a campaign's visitors are told apart. */
export const BREAKDOWNS = [
  'device',
  'page',
  'group',
  'source',
  'country',
  'language',
  'arrival',
  'written',
  'cause',
  'hour',
  'weekday',
  'version',
  'variant',
] as const;
export type Breakdown = (typeof BREAKDOWNS)[number];
