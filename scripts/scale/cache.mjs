import { spawn } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { freePort } from '../lib/ports.mjs';
import { answers } from './pooler.mjs';

/**
 * A caching proxy (Varnish) in front of an edge, as it comes: it honours what answers say of themselves, and nothing else is
 * configured but where the edge is.
 *
 * @param {{ edgePort: number, folder: string }} of
 */
export async function startCache({ edgePort, folder }) {
  mkdirSync(folder, { recursive: true });
  const port = await freePort(0);
  writeFileSync(
    `${folder}/edge.vcl`,
    `vcl 4.1;
backend edge { .host = "127.0.0.1"; .port = "${edgePort}"; }
sub vcl_deliver {
  set resp.http.x-cache = "miss";
  if (obj.hits > 0) { set resp.http.x-cache = "hit"; }
}
`,
  );
  const cache = spawn(
    '/usr/sbin/varnishd',
    [
      '-F',
      '-f',
      `${folder}/edge.vcl`,
      '-a',
      `127.0.0.1:${port}`,
      '-n',
      `${folder}/work`,
      '-s',
      'malloc,64m',
      '-j',
      'none',
    ],
    { stdio: 'ignore' },
  );
  await answers(port, cache);
  return {
    port,
    async stop() {
      const ended = new Promise((resolve) => cache.once('exit', resolve));
      cache.kill('SIGTERM');
      await ended;
    },
  };
}
