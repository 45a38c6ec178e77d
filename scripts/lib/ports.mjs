import { createServer } from 'node:net';

const tryPort = (port) =>
  new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(undefined));
    server.listen(port, '127.0.0.1', () => {
      const taken = server.address().port;
      server.close(() => resolve(taken));
    });
  });

/** The wanted port when it is free on loopback, else any free one. */
export async function freePort(wanted) {
  return (wanted && (await tryPort(wanted))) || (await tryPort(0));
}
