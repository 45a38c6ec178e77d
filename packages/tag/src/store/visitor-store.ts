import {
  type Arrival,
  type Memory,
  newMemory,
  readMemory,
  touchSession,
  withoutSlash,
  writeMemory,
} from '@velarium/core/decide';
import { timeOrderedId, visitorId } from '../ids.ts';
import { recordName, type Storage } from './storage.ts';

export interface VisitorStore {
  /** The record as it is now, other tabs' changes included. */
  read(): Memory;
  /** Changes the record; nothing of another tab's between reading and writing is lost. */
  change(by: (memory: Memory) => Memory): Memory;
  /** Notes activity and begins a new session when the old one has ended. */
  touch(): Memory;
}

const IDS = { visitor: visitorId, session: timeOrderedId };

const MOST_PARAMETERS = 20;

/** How a session that begins now began. */
function arrival(): Arrival {
  const host = /^https?:\/\/([^/:]+)/.exec(document.referrer)?.[1] ?? '';
  return {
    // As pages are told apart.
    landing: withoutSlash(location.pathname),
    referrer: host === location.hostname ? '' : host.toLowerCase(),
    arrival: Object.fromEntries(
      [...new URLSearchParams(location.search)]
        .slice(0, MOST_PARAMETERS)
        .map(([key, value]) => [key.slice(0, 80), value.slice(0, 300)]),
    ),
  };
}

export function createVisitorStore(storage: Storage, siteKey: string, sessionMinutes: number): VisitorStore {
  const name = recordName(siteKey);

  /** What was read last, and out of what: reading it again costs more than all that is asked of it. */
  let known: { readonly text: string | null; readonly memory: Memory | undefined } | undefined;
  const read = () => {
    const text = storage.read(name);
    if (known?.text !== text) known = { text, memory: readMemory(text) };
    return known?.memory ?? write(newMemory(IDS, Date.now(), arrival()));
  };
  const write = (memory: Memory): Memory => {
    const text = writeMemory(memory);
    storage.write(name, text);
    known = { text, memory };
    return memory;
  };
  const change = (by: (memory: Memory) => Memory) => write(by(read()));
  return {
    read,
    change,
    touch: () => change((memory) => touchSession(memory, Date.now(), sessionMinutes, IDS, arrival())),
  };
}

/**
 * Runs `work` while no other tab of the site does, so two tabs cannot both spend the last showing. Where locks
 * are missing (insecure contexts) it runs at once: storage is read synchronously just before, which leaves a gap
 * of microseconds.
 */
export function withSiteLock(siteKey: string, work: () => void): unknown {
  const { locks } = navigator as { locks?: LockManager };
  return locks ? locks.request(recordName(siteKey), work) : work();
}
