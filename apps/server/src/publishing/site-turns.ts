import type { DataSource, EntityManager } from 'typeorm';
import { databaseFault } from '../infra/database-fault.ts';

export interface SiteOfWorkspace {
  readonly workspaceId: string;
  readonly siteId: string;
}

/** What changes something on which a site's manifest depends. */
type Change = (manager: EntityManager) => Promise<void>;

interface Waiting {
  readonly change: Change;
  readonly resolve: () => void;
  readonly reject: (error: unknown) => void;
}

/**
 * Lets changes of one site happen in turn, those that have gathered meanwhile together: one transaction, one
 * connection and one `rebuild` for all of them. A change that is refused takes nothing from the others.
 */
export function createSiteTurns(
  db: DataSource,
  rebuild: (manager: EntityManager, site: SiteOfWorkspace) => Promise<void>,
) {
  const waiting = new Map<string, Waiting[]>();

  async function together(site: SiteOfWorkspace, batch: readonly Waiting[]): Promise<void> {
    const made: Waiting[] = [];
    try {
      await db.transaction(async (manager) => {
        for (const one of batch) {
          try {
            // A savepoint of its own.
            await manager.transaction((inner) => one.change(inner));
            made.push(one);
          } catch (error) {
            if (databaseFault(error)) throw error;
            one.reject(error);
          }
        }
        if (made.length > 0) await rebuild(manager, site);
      });
      for (const one of made) one.resolve();
    } catch (error) {
      // What one of them brought may be what the whole failed by: then each has a turn of its own.
      if (batch.length > 1 && !databaseFault(error)) for (const one of made) await together(site, [one]);
      else for (const one of batch) one.reject(error);
    }
  }

  async function work(site: SiteOfWorkspace): Promise<void> {
    for (let batch = waiting.get(site.siteId) ?? []; batch.length > 0; ) {
      waiting.set(site.siteId, []);
      await together(site, batch);
      batch = waiting.get(site.siteId) ?? [];
    }
    waiting.delete(site.siteId);
  }

  return (site: SiteOfWorkspace, change: Change): Promise<void> =>
    new Promise((resolve, reject) => {
      const one = { change, resolve, reject };
      const others = waiting.get(site.siteId);
      if (others) others.push(one);
      else {
        waiting.set(site.siteId, [one]);
        void work(site);
      }
    });
}
