import { chownSync, mkdirSync, rmSync } from 'node:fs';
import { keepServer, serverUser } from '../lib/cluster.mjs';
import { postgresPrograms } from '../lib/install.mjs';
import { freePort } from '../lib/ports.mjs';
import { run } from '../lib/processes.mjs';

/**
 * A streaming standby of a cluster, in a folder of its own: reads are answered while it follows, and it can take the
 * cluster's place.
 *
 * @param {{ adminUrl: string, folder: string }} of The cluster's superuser, and where the standby is to lie.
 */
export async function startStandby({ adminUrl, folder }) {
  const programs = postgresPrograms();
  const user = serverUser();
  const as = { ...user, cwd: '/' };
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  if (user.uid !== undefined) chownSync(folder, user.uid, user.gid);
  const data = `${folder}/data`;
  // The name by which the cluster waits for it.
  const from = `${adminUrl}?application_name=standby`;
  const copied = [
    '-D',
    data,
    '-d',
    from,
    '--write-recovery-conf',
    '--wal-method=stream',
    '--checkpoint=fast',
  ];
  await run(`${programs}/pg_basebackup`, copied, as);
  const port = await freePort(0);
  const server = await keepServer({ data, port, user });
  return {
    port,
    /** Takes the cluster's place; nobody is waited for any more. */
    async promote() {
      await run(`${programs}/pg_ctl`, ['-D', data, '-s', '-w', 'promote'], as);
    },
    stop: () => server.stop(),
  };
}
