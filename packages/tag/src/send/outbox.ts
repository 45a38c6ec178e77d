import type { Collect, VisitorEvent } from '@velarium/contract';
import { toJson } from '@velarium/core/decide';
import { onPageHidden } from '../page/on-page-hidden.ts';
import { recordName, type Storage } from '../store/storage.ts';

/** Most events kept for a server that does not answer; the oldest go first. */
const KEPT = 200;
const PER_CALL = 50;
const DELAY_MS = 400;

/** Where events wait in storage until the server has them. */
export const unsentName = (siteKey: string) => `${recordName(siteKey)}:unsent`;

export interface EventOutbox {
  add(event: VisitorEvent): void;
  /** Sends what an earlier page could not. */
  start(visitor: () => string): void;
}

/**
 * Sends events in batches and keeps each until the server has said it is stored; what a page could not send, the
 * next one does. An event sent twice counts once, by its id.
 */
export function createEventOutbox(
  edge: string,
  siteKey: string,
  storage: Storage,
  made: number | undefined,
): EventOutbox {
  const name = unsentName(siteKey);
  let timer = 0;
  let isSending = false;
  let visitor = () => '';

  const kept = (): VisitorEvent[] => {
    try {
      // What is no list was not written by us.
      return [...JSON.parse(storage.read(name) ?? '[]')];
    } catch {
      return [];
    }
  };
  const keep = (events: VisitorEvent[]) => storage.write(name, toJson(events.slice(-KEPT)));
  // Which manifest the page runs: one that some worker of the page keeps for ever shows by that.
  const body = (events: VisitorEvent[]) =>
    toJson({ site: siteKey, made, visitor: visitor(), events } satisfies Collect);

  const send = async () => {
    const batch = kept().slice(0, PER_CALL);
    if (isSending || !batch.length) return;
    isSending = true;
    const isSettled = await post(`${edge}/collect`, body(batch));
    isSending = false;
    if (!isSettled) return;
    const sent = new Set(batch.map(({ id }) => id));
    const left = kept().filter(({ id }) => !sent.has(id));
    keep(left);
    if (left.length) plan();
  };
  const plan = () => {
    clearTimeout(timer);
    timer = window.setTimeout(send, DELAY_MS);
  };
  return {
    add(event) {
      keep([...kept(), event]);
      plan();
    },
    start(read) {
      visitor = read;
      if (kept().length) plan();
      onPageHidden(() => {
        const events = kept().slice(0, PER_CALL);
        // No answer can be heard any more, so they stay kept and are sent again by the next page.
        if (events.length) navigator.sendBeacon?.(`${edge}/collect`, body(events));
      });
    },
  };
}

/** Posts text, which needs no preflight. True when the server has settled it: stored, or refused for good. */
async function post(address: string, text: string): Promise<boolean> {
  try {
    const { ok, status } = await fetch(address, {
      method: 'POST',
      body: text,
      keepalive: true,
      credentials: 'omit',
    });
    return ok || /^4(?!08|29)/.test(`${status}`);
  } catch {
    return false;
  }
}
