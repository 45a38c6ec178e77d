import { readMemory, toJson, writeMemory } from '@velarium/core/decide';
import { RARE } from '@velarium/core/rare';
import { unsentName } from '../send/outbox.ts';
import { recordName, type Storage } from './storage.ts';
import type { VisitorStore } from './visitor-store.ts';

/**
 * The visitor agrees to be remembered, or does not. Agreeing adds what this page has learned to what is remembered
 * from before; refusing forgets all of it, and the page goes on as for somebody new.
 */
export function giveConsent(isGiven: unknown, siteKey: string, store: VisitorStore, storage: Storage): void {
  const [record, unsent] = [recordName(siteKey), unsentName(siteKey)];
  if (isGiven !== true) {
    storage.allow(false);
    try {
      for (const name of [record, unsent]) storage.keep().removeItem(name);
    } catch {
      // Nothing can be stored, so nothing is.
    }
    store.touch();
    return;
  }
  if (storage.isKept()) return;
  const learned = store.read();
  const waiting = storage.fallback.get(unsent);
  storage.fallback.clear();
  storage.allow(true);
  if (readMemory(storage.read(record))) {
    store.touch();
    store.change((memory) => RARE.joinMemory(memory, learned));
  } else storage.write(record, writeMemory(learned));
  if (waiting) storage.write(unsent, toJson([...listOf(storage.read(unsent)), ...listOf(waiting)]));
}

function listOf(json: string | null): unknown[] {
  try {
    const value: unknown = JSON.parse(json ?? '[]');
    return Array.isArray(value) ? value : [];
  } catch {
    return [];
  }
}
