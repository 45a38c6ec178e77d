import { createServer } from 'node:net';

/** Holds a port so that nobody else gets it; `undefined` when it is taken. */
const holdPort = (port) =>
  new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(undefined));
    server.listen(port, '127.0.0.1', () => resolve(server));
  });

/** Below the ports the system hands to outgoing connections (RFC 6056): one of those could be gone a moment later. */
const anyPort = () => 12_000 + Math.floor(Math.random() * 18_000);

async function holdFreePort(wanted) {
  for (let port = wanted || anyPort(); ; port = anyPort()) {
    const server = await holdPort(port);
    if (server) return server;
  }
}

/** For each name the wanted port when it is free on loopback, else any free one (0 wants any); no two are the same. */
export async function choosePorts(wanted) {
  const held = [];
  for (const [name, port] of Object.entries(wanted)) held.push([name, await holdFreePort(port)]);
  const ports = Object.fromEntries(held.map(([name, server]) => [name, server.address().port]));
  await Promise.all(held.map(([, server]) => new Promise((resolve) => server.close(resolve))));
  return ports;
}

export const freePort = async (wanted) => (await choosePorts({ one: wanted })).one;
