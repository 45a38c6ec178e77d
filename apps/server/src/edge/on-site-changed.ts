import { Socket } from 'node:net';
import pg from 'pg';
import { SITE_CHANGED } from '../publishing/index.ts';

const RETRY_MS = 1000;
/** A connection that takes longer to make is given up: the next try may find a database that is there again. */
const CONNECT_MS = 4000;

export interface SiteChangeHooks {
  readonly onChanged: (siteKey: string) => void;
  /** The line was down: anything may have changed unheard. */
  readonly onReconnected: () => void;
}

export interface SiteChangeListener {
  /** Resolves when the line stands for the first time. */
  readonly isListening: Promise<void>;
  /** Ends at any moment, also while the database is away. */
  stop(): void;
}

/**
 * Listens for publishes on one connection of its own. There is never a second: a new one is made only after the old
 * one has been given up, whatever number of signs of its end arrive.
 */
export function onSiteChanged(databaseUrl: string, hooks: SiteChangeHooks): SiteChangeListener {
  let isStopped = false;
  let timer: NodeJS.Timeout | undefined;
  /** The one connection's socket, while there is one. */
  let line: Socket | undefined;
  let hasListened = false;
  let tellListening = () => {};
  const isListening = new Promise<void>((resolve) => {
    tellListening = resolve;
  });

  const connect = () => {
    const socket = new Socket();
    line = socket;
    /** Gives this connection up, once, and plans the next. */
    const giveUp = () => {
      if (line !== socket) return;
      line = undefined;
      // Without a goodbye, which would wait for a server that may never answer.
      socket.destroy();
      if (!isStopped) timer = setTimeout(connect, RETRY_MS);
    };
    const client = new pg.Client({
      connectionString: databaseUrl,
      application_name: 'velarium edge',
      connectionTimeoutMillis: CONNECT_MS,
      keepAlive: true,
      stream: () => socket,
    });
    client.on('notification', ({ payload }) => payload && hooks.onChanged(payload));
    client.on('error', giveUp);
    client.on('end', giveUp);
    client
      .connect()
      .then(() => client.query(`LISTEN ${SITE_CHANGED}`))
      .then(() => {
        if (hasListened) hooks.onReconnected();
        hasListened = true;
        tellListening();
      })
      .catch(giveUp);
  };
  connect();
  return {
    isListening,
    stop() {
      isStopped = true;
      clearTimeout(timer);
      line?.destroy();
      line = undefined;
    },
  };
}
