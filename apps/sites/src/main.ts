import { FELL } from './fell/site.ts';
import { createSiteApp } from './serve.ts';
import { SKERRY } from './skerry/site.ts';

/** The demo sites, each on a port and therefore an origin of its own. */
const edgeOrigin = process.env.VELARIUM_EDGE_ORIGIN ?? 'http://127.0.0.1:4401';
const firstPort = Number(process.env.VELARIUM_SITES_PORT ?? 4410);
const secondPort = Number(process.env.VELARIUM_SITES_PORT_2 ?? firstPort + 1);
const apps = [createSiteApp(FELL, edgeOrigin), createSiteApp(SKERRY, edgeOrigin)] as const;

await apps[0].listen({ port: firstPort, host: '127.0.0.1' });
await apps[1].listen({ port: secondPort, host: '127.0.0.1' });
process.send?.('ready');

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => void Promise.all(apps.map((app) => app.close())).then(() => process.exit(0)));
}
