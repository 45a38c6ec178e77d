import type { Cap, ManifestCampaign } from '@velarium/contract';

/** What a visitor's browser remembers of one campaign. */
export interface CampaignMemory {
  /** All showings ever. */
  readonly showings: number;
  /** The latest showings, epoch milliseconds, oldest first; only as many as the campaign's caps can ask for. */
  readonly shownAtMs: readonly number[];
  /** Session of the latest showing, and how often it was shown in it. */
  readonly shownIn: string;
  readonly showingsInSession: number;
  readonly closedAtMs?: number;
  readonly closedIn?: string;
  readonly convertedAtMs?: number;
  readonly convertedIn?: string;
}

/** One small versioned record per site, kept in the site's own storage. */
export interface Memory {
  readonly v: 1;
  /** 128 random bits in hex. */
  readonly visitor: string;
  readonly session: { readonly id: string; readonly startedAtMs: number; readonly activeAtMs: number };
  readonly campaigns: Readonly<Record<string, CampaignMemory>>;
}

/** Random ids, given from outside: core has no randomness of its own. */
export interface Ids {
  readonly visitor: () => string;
  readonly session: () => string;
}

export function newMemory(ids: Ids, nowMs: number): Memory {
  return {
    v: 1,
    visitor: ids.visitor(),
    session: { id: ids.session(), startedAtMs: nowMs, activeAtMs: nowMs },
    campaigns: {},
  };
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isTime = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value);
const isText = (value: unknown): value is string => typeof value === 'string';

/** Reads one campaign's record defensively; anything damaged is as if it had never been. */
function readCampaign(value: unknown): CampaignMemory | undefined {
  if (
    !isRecord(value) ||
    !isTime(value.showings) ||
    !isText(value.shownIn) ||
    !isTime(value.showingsInSession)
  ) {
    return undefined;
  }
  if (!Array.isArray(value.shownAtMs) || !value.shownAtMs.every(isTime)) return undefined;
  return {
    showings: value.showings,
    shownAtMs: value.shownAtMs,
    shownIn: value.shownIn,
    showingsInSession: value.showingsInSession,
    ...(isTime(value.closedAtMs) && isText(value.closedIn)
      ? { closedAtMs: value.closedAtMs, closedIn: value.closedIn }
      : {}),
    ...(isTime(value.convertedAtMs) && isText(value.convertedIn)
      ? { convertedAtMs: value.convertedAtMs, convertedIn: value.convertedIn }
      : {}),
  };
}

/**
 * Reads a stored record. Storage is the page's, so nothing in it is trusted: damaged, foreign or newer records
 * give `undefined`, and a damaged campaign inside a good record is left out.
 */
export function readMemory(json: string | null): Memory | undefined {
  if (!json) return undefined;
  let value: unknown;
  try {
    value = JSON.parse(json);
  } catch {
    return undefined;
  }
  if (!isRecord(value) || value.v !== 1 || !isRecord(value.session) || !isRecord(value.campaigns))
    return undefined;
  const { id, startedAtMs, activeAtMs } = value.session;
  if (!isText(value.visitor) || !/^[0-9a-f]{32}$/.test(value.visitor)) return undefined;
  if (!isText(id) || !isTime(startedAtMs) || !isTime(activeAtMs)) return undefined;
  const campaigns: Record<string, CampaignMemory> = {};
  for (const [key, entry] of Object.entries(value.campaigns)) {
    const campaign = readCampaign(entry);
    if (campaign) campaigns[key] = campaign;
  }
  return { v: 1, visitor: value.visitor, session: { id, startedAtMs, activeAtMs }, campaigns };
}

/**
 * Notes activity at `nowMs`. A session ends after `sessionMinutes` without any; the next activity begins
 * another. Exactly that long is still the same session.
 */
export function touchSession(memory: Memory, nowMs: number, sessionMinutes: number, ids: Ids): Memory {
  const isOver = nowMs - memory.session.activeAtMs > sessionMinutes * 60_000;
  return {
    ...memory,
    session: isOver
      ? { id: ids.session(), startedAtMs: nowMs, activeAtMs: nowMs }
      : { ...memory.session, activeAtMs: Math.max(nowMs, memory.session.activeAtMs) },
  };
}

function withCampaign(memory: Memory, id: string, change: (old: CampaignMemory) => CampaignMemory): Memory {
  const old = memory.campaigns[id] ?? { showings: 0, shownAtMs: [], shownIn: '', showingsInSession: 0 };
  return { ...memory, campaigns: { ...memory.campaigns, [id]: change(old) } };
}

/** How many instants a campaign's rolling caps can ever look back on. */
const keptShowings = (caps: readonly Cap[]): number =>
  caps.reduce((most, cap) => (typeof cap.per === 'string' ? most : Math.max(most, cap.max)), 1);

export function rememberShown(
  memory: Memory,
  campaign: Pick<ManifestCampaign, 'id' | 'caps'>,
  nowMs: number,
): Memory {
  return withCampaign(memory, campaign.id, (old) => ({
    ...old,
    showings: old.showings + 1,
    shownAtMs: [...old.shownAtMs, nowMs].sort((a, b) => a - b).slice(-keptShowings(campaign.caps)),
    shownIn: memory.session.id,
    showingsInSession: old.shownIn === memory.session.id ? old.showingsInSession + 1 : 1,
  }));
}

export function rememberClosed(memory: Memory, campaignId: string, nowMs: number): Memory {
  return withCampaign(memory, campaignId, (old) => ({
    ...old,
    closedAtMs: nowMs,
    closedIn: memory.session.id,
  }));
}

export function rememberConverted(memory: Memory, campaignId: string, nowMs: number): Memory {
  return withCampaign(memory, campaignId, (old) => ({
    ...old,
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
