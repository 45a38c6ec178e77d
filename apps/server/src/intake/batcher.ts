import type { DataSource } from 'typeorm';
import { databaseFault, isKnownKey } from '../infra/database-fault.ts';
import { storeEvents } from './store-events.ts';
import type { StoredEvent } from './stored-event.ts';

/** Events written by one statement at most. */
const STATEMENT_SIZE = 2000;
/** Where one event is known others may be, sent again after the same fault: for so many statements each is looked for. */
const LOOKING_FIRST = 20;
/** Statements under way at once; more would only wait for each other on the rollup rows. */
const WRITERS = 2;
/** Events waiting at most; past it callers are told to come back, rather than memory filled. */
const WAITING = 200_000;

interface Waiting {
  readonly events: readonly StoredEvent[];
  readonly resolve: () => void;
  readonly reject: (error: unknown) => void;
}

export class IntakeFull extends Error {}

/**
 * Gathers the events of many requests into few statements. What arrives while a statement runs goes with the
 * next, so load makes batches larger and waiting does not grow. A caller's promise resolves once its events are
 * durable.
 */
export function createBatcher(db: DataSource) {
  let queue: Waiting[] = [];
  let waiting = 0;
  let writers = 0;
  let lookingFirst = 0;

  async function write(): Promise<void> {
    writers++;
    while (queue.length) {
      await store(take());
    }
    writers--;
  }

  /** Takes every event to be new, which nearly all are: not to look for each of them first saves a sixth of storing it. */
  async function storeAll(events: readonly StoredEvent[]): Promise<void> {
    const areNew = lookingFirst === 0;
    if (!areNew) lookingFirst--;
    try {
      await storeEvents(db.manager, events, { areNew });
    } catch (error) {
      if (!(areNew && isKnownKey(error))) throw error;
      lookingFirst = LOOKING_FIRST;
      await storeEvents(db.manager, events);
    }
  }

  async function store(batch: readonly Waiting[]): Promise<void> {
    try {
      await storeAll(batch.flatMap((call) => call.events));
      for (const call of batch) call.resolve();
    } catch (error) {
      // What one visitor sent must not take others' events with it: each call is tried by itself.
      if (batch.length > 1 && databaseFault(error) === 'value') for (const call of batch) await store([call]);
      else for (const call of batch) call.reject(error);
    }
  }

  function take(): Waiting[] {
    let size = 0;
    let calls = 0;
    for (const call of queue) {
      if (calls > 0 && size + call.events.length > STATEMENT_SIZE) break;
      size += call.events.length;
      calls++;
    }
    const batch = queue.slice(0, calls);
    queue = queue.slice(calls);
    waiting -= size;
    return batch;
  }

  return {
    /** @throws {IntakeFull} When too many events wait already. */
    add(events: readonly StoredEvent[]): Promise<void> {
      if (waiting + events.length > WAITING) return Promise.reject(new IntakeFull());
      waiting += events.length;
      return new Promise((resolve, reject) => {
        queue.push({ events, resolve, reject });
        // In a task of its own, so requests read in the same turn travel together.
        if (writers < WRITERS) setImmediate(() => writers < WRITERS && void write());
      });
    },
  };
}
