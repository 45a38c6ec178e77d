import type { ManifestCampaign } from '@velarium/contract';
import { toJson } from './to-json.ts';

/** What a visitor's browser remembers of one campaign. */
export interface CampaignMemory {
  /** All showings ever. */
  readonly showings: number;
  /** The latest showings, epoch milliseconds, oldest first. */
  readonly shownAtMs: readonly number[];
  /** Session of the latest showing, and how often it was shown in it. */
  readonly shownIn: string;
  readonly showingsInSession: number;
  /** Showings since the last click or conversion. */
  readonly unanswered: number;
  /** The cap epoch that all this was counted in; only conversions are kept from one to the next. */
  readonly epoch: number;
  /** The first showing of this epoch, epoch milliseconds. */
  readonly firstAtMs?: number | undefined;
  readonly closedAtMs?: number;
  readonly closedIn?: string | undefined;
  readonly refusedAtMs?: number;
  readonly refusedIn?: string | undefined;
  readonly convertedAtMs?: number;
  readonly convertedIn?: string;
}

export interface SessionMemory {
  readonly id: string;
  readonly activeAtMs: number;
  /** 1 for the visitor's first. */
  readonly number: number;
  readonly views: number;
  /** Visible milliseconds on the pages before this one. */
  readonly visibleMs: number;
  /** Path it began at, host it came from, parameters it came with. */
  readonly landing: string;
  readonly referrer: string;
  readonly arrival: Readonly<Record<string, string>>;
  /** Messages of any campaign shown in it. */
  readonly shown: number;
}

/** One small versioned record per site, kept in the site's own storage. */
export interface Memory {
  readonly v: 1;
  /** 128 random bits in hex. */
  readonly visitor: string;
  readonly session: SessionMemory;
  /** Showings of all campaigns in the last 24 hours, epoch milliseconds. */
  readonly shownAtMs: readonly number[];
  /** Views of the pages seen most lately, by page key. */
  readonly pages: Readonly<Record<string, number>>;
  readonly campaigns: Readonly<Record<string, CampaignMemory>>;
}

/** Random ids, given from outside: core has no randomness of its own. */
export interface Ids {
  readonly visitor: () => string;
  readonly session: () => string;
}

/** How a session began, told by the page it begins on. */
export type Arrival = Pick<SessionMemory, 'landing' | 'referrer' | 'arrival'>;
/** Of somebody of whom only the visits count. */
export const NO_ARRIVAL: Arrival = { landing: '', referrer: '', arrival: {} };

const DAY_MS = 86_400_000;
const MOST_PAGES = 40;
const MOST_SHOWN = 500;
/** More than a cap would ask for: one that is raised tomorrow looks back on what was shown before. */
const MOST_SHOWN_OF_ONE = 100;

function newSession(ids: Ids, nowMs: number, number: number, arrival: Arrival): SessionMemory {
  return {
    id: ids.session(),
    activeAtMs: nowMs,
    number,
    views: 0,
    visibleMs: 0,
    shown: 0,
    ...arrival,
  };
}

export function newMemory(ids: Ids, nowMs: number, arrival: Arrival): Memory {
  return {
    v: 1,
    visitor: ids.visitor(),
    session: newSession(ids, nowMs, 1, arrival),
    shownAtMs: [],
    pages: {},
    campaigns: {},
  };
}

const NEVER: CampaignMemory = {
  showings: 0,
  shownAtMs: [],
  shownIn: '',
  showingsInSession: 0,
  unanswered: 0,
  epoch: 0,
};

/** Tells a record that somebody or something has changed from one as it was written. Not against forgery: storage is the page's. */
function checkSum(text: string): number {
  let sum = 0;
  for (let at = 0; at < text.length; at++) sum = (Math.imul(sum, 31) + text.charCodeAt(at)) | 0;
  return sum;
}

/** A record as it is stored: a check sum, a space, and its JSON. */
export function writeMemory(memory: Memory): string {
  const json = toJson(memory);
  return `${checkSum(json)} ${json}`;
}

/**
 * Reads a stored record. Storage is the page's, so only what was written by {@link writeMemory} and left alone is
 * taken: damaged, foreign or newer records give `undefined`.
 */
export function readMemory(text: string | null): Memory | undefined {
  const [sum, json] = /^(\S+) (.*)$/s.exec(text ?? '')?.slice(1) ?? [];
  if (json === undefined || sum !== String(checkSum(json))) return undefined;
  const memory: Memory = JSON.parse(json);
  return memory.v === 1 ? memory : undefined;
}

/**
 * Notes activity at `nowMs`. A session ends after `sessionMinutes` without any; the next activity begins
 * another. Exactly that long is still the same session.
 */
export function touchSession(
  memory: Memory,
  nowMs: number,
  sessionMinutes: number,
  ids: Ids,
  arrival: Arrival,
): Memory {
  const { session } = memory;
  const isOver = nowMs - session.activeAtMs > sessionMinutes * 60_000;
  return {
    ...memory,
    session: isOver
      ? newSession(ids, nowMs, session.number + 1, arrival)
      : { ...session, activeAtMs: Math.max(nowMs, session.activeAtMs) },
  };
}

/** Notes a page view of the page with this key. */
export function rememberView(memory: Memory, pageKey: string): Memory {
  const { [pageKey]: views = 0, ...others } = memory.pages;
  const kept = Object.entries(others).slice(-(MOST_PAGES - 1));
  return {
    ...memory,
    session: { ...memory.session, views: memory.session.views + 1 },
    pages: { ...Object.fromEntries(kept), [pageKey]: views + 1 },
  };
}

/** Adds the visible time of a page that is being left. */
export function rememberVisible(memory: Memory, visibleMs: number): Memory {
  const { session } = memory;
  return { ...memory, session: { ...session, visibleMs: session.visibleMs + visibleMs } };
}

function withCampaign(memory: Memory, id: string, change: (old: CampaignMemory) => CampaignMemory): Memory {
  return { ...memory, campaigns: { ...memory.campaigns, [id]: change(memory.campaigns[id] ?? NEVER) } };
}

export function rememberShown(
  memory: Memory,
  { id, epoch }: Pick<ManifestCampaign, 'id' | 'epoch'>,
  nowMs: number,
): Memory {
  const { session } = memory;
  return withCampaign(
    {
      ...memory,
      session: { ...session, shown: session.shown + 1 },
      shownAtMs: [...memory.shownAtMs.filter((atMs) => nowMs - atMs < DAY_MS), nowMs].slice(-MOST_SHOWN),
    },
    id,
    (past) => {
      const old =
        past.epoch === epoch
          ? past
          : { ...past, ...NEVER, firstAtMs: undefined, closedIn: undefined, refusedIn: undefined };
      return {
        ...old,
        epoch,
        firstAtMs: old.firstAtMs ?? nowMs,
        showings: old.showings + 1,
        shownAtMs: [...old.shownAtMs, nowMs].sort((a, b) => a - b).slice(-MOST_SHOWN_OF_ONE),
        shownIn: session.id,
        showingsInSession: old.shownIn === session.id ? old.showingsInSession + 1 : 1,
        unanswered: old.unanswered + 1,
      };
    },
  );
}

export function rememberClosed(memory: Memory, campaignId: string, nowMs: number): Memory {
  return withCampaign(memory, campaignId, (old) => ({
    ...old,
    closedAtMs: nowMs,
    closedIn: memory.session.id,
  }));
}

export function rememberRefused(memory: Memory, campaignId: string, nowMs: number): Memory {
  return withCampaign(memory, campaignId, (old) => ({
    ...old,
    refusedAtMs: nowMs,
    refusedIn: memory.session.id,
  }));
}

export const rememberAnswered = (memory: Memory, campaignId: string): Memory =>
  withCampaign(memory, campaignId, (old) => ({ ...old, unanswered: 0 }));

export function rememberConverted(memory: Memory, campaignId: string, nowMs: number): Memory {
  return withCampaign(memory, campaignId, (old) => ({
    ...old,
    unanswered: 0,
    convertedAtMs: nowMs,
    convertedIn: memory.session.id,
  }));
}

/** Forgets campaigns the site no longer runs once the record would grow past `most`; oldest showing first. */
export function boundMemory(memory: Memory, liveIds: ReadonlySet<string>, most = 200): Memory {
  const entries = Object.entries(memory.campaigns);
  if (entries.length <= most) return memory;
  const lastSeen = (entry: CampaignMemory) => entry.shownAtMs.at(-1) ?? entry.closedAtMs ?? 0;
  const kept = entries
    .sort(
      ([idA, a], [idB, b]) =>
        Number(liveIds.has(idB)) - Number(liveIds.has(idA)) || lastSeen(b) - lastSeen(a),
    )
    .slice(0, most);
  return { ...memory, campaigns: Object.fromEntries(kept) };
}
