import { connect, createServer, type Server, type Socket } from 'node:net';

/** A way to the database that can be cut and mended, so that outages can be had without stopping a server. */
export interface BreakableLine {
  readonly url: string;
  /** Ends every connection and refuses new ones. */
  cut(): Promise<void>;
  /** Connections are taken but nothing passes: the worst kind of outage. */
  stall(): void;
  mend(): Promise<void>;
  /** Connections open at this moment. */
  readonly open: number;
  close(): Promise<void>;
}

export async function createBreakableLine(databaseUrl: string): Promise<BreakableLine> {
  const target = new URL(databaseUrl);
  const sockets = new Set<Socket>();
  let isStalled = false;
  let server: Server | undefined;
  let port = 0;

  const listen = () =>
    new Promise<void>((resolve, reject) => {
      const made = createServer((here) => {
        sockets.add(here);
        here.on('error', () => {}).on('close', () => sockets.delete(here));
        if (isStalled) return;
        const there = connect(Number(target.port), target.hostname);
        there.on('error', () => here.destroy()).on('close', () => here.destroy());
        here.on('close', () => there.destroy());
        here.pipe(there).pipe(here);
      });
      made.once('error', reject);
      made.listen(port, '127.0.0.1', () => {
        port = (made.address() as { port: number }).port;
        server = made;
        resolve();
      });
    });
  const endAll = () => {
    for (const socket of sockets) socket.destroy();
  };
  const stop = () =>
    new Promise<void>((resolve) => {
      endAll();
      if (!server) return resolve();
      server.close(() => resolve());
      server = undefined;
    });
  await listen();
  const url = new URL(databaseUrl);
  url.host = `127.0.0.1:${port}`;
  return {
    url: url.href,
    get open() {
      return sockets.size;
    },
    cut: stop,
    stall() {
      isStalled = true;
      endAll();
    },
    async mend() {
      isStalled = false;
      endAll();
      if (!server) await listen();
    },
    close: stop,
  };
}
