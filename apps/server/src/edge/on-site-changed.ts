import pg from 'pg';
import { SITE_CHANGED } from '../publishing/index.ts';

const RETRY_MS = 1000;

export interface SiteChangeHooks {
  readonly onChanged: (siteKey: string) => void;
  /** The line was down: anything may have changed unheard. */
  readonly onReconnected: () => void;
}

/** Listens for publishes on a connection of its own, and again when it breaks. Returns the undo. */
export async function onSiteChanged(
  databaseUrl: string,
  hooks: SiteChangeHooks,
): Promise<() => Promise<void>> {
  let client: pg.Client | undefined;
  let timer: NodeJS.Timeout | undefined;
  let isStopped = false;

  const connect = async () => {
    client = new pg.Client({ connectionString: databaseUrl, application_name: 'velarium edge' });
    client.on('notification', ({ payload }) => payload && hooks.onChanged(payload));
    client.on('error', () => {
      if (!isStopped) timer = setTimeout(again, RETRY_MS);
    });
    await client.connect();
    await client.query(`LISTEN ${SITE_CHANGED}`);
  };
  const again = async () => {
    try {
      await connect();
      hooks.onReconnected();
    } catch {
      if (!isStopped) timer = setTimeout(again, RETRY_MS);
    }
  };
  await connect();
  return async () => {
    isStopped = true;
    clearTimeout(timer);
    await client?.end();
  };
}
