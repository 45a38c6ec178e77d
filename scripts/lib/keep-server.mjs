// Runs a PostgreSQL server for a parent process and stops it when asked or when the parent is gone, however it
// went: a killed `npm start` or test leaves no server behind. Usage: fork(this, [JSON of { command, args, user }]).
import { spawn } from 'node:child_process';

const { command, args, user } = JSON.parse(process.argv[2]);
const server = spawn(command, args, { ...user, cwd: '/', stdio: ['ignore', 'ignore', 'pipe'] });
let log = '';
server.stderr.on('data', (chunk) => {
  log = (log + chunk).slice(-4000);
  if (/ready to accept (read-only )?connections/.test(log) && process.connected)
    process.send({ isReady: true });
});
// SIGINT is PostgreSQL's fast shutdown: sessions are ended, what is committed is kept.
const stop = () => server.kill('SIGINT');
for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP']) process.on(signal, stop);
process.once('disconnect', stop);
server.once('exit', () => {
  if (process.connected) process.send({ log });
  process.exit(0);
});
