import { type ChildProcess, spawn } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { expect, test } from '@playwright/test';

const ROOT = new URL('..', import.meta.url).pathname;
const home = mkdtempSync('/tmp/velarium-start-');
chmodSync(home, 0o755);
const BASE = 20_000 + (process.pid % 20_000);

interface Started {
  readonly child: ChildProcess;
  readonly studio: string;
  readonly output: () => string;
  readonly ended: Promise<number | null>;
}

async function start(isExpectedToRun = true): Promise<Started> {
  const child = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: ROOT,
    env: {
      ...process.env,
      VELARIUM_HOME: home,
      VELARIUM_PORT: String(BASE),
      VELARIUM_EDGE_PORT: String(BASE + 1),
      VELARIUM_SITES_PORT: String(BASE + 10),
      VELARIUM_STANDINS_PORT: String(BASE + 20),
    },
  });
  let text = '';
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
  const ready = new Promise<void>((resolve) => {
    for (const stream of [child.stdout, child.stderr]) {
      stream.on('data', (chunk) => {
        text += chunk;
        if (text.includes('Velarium is ready')) resolve();
      });
    }
  });
  await (isExpectedToRun ? Promise.race([ready, ended]) : ended);
  return { child, ended, output: () => text, studio: /Studio\s+(\S+)/.exec(text)?.[1] ?? '' };
}

/** Processes that name this home, or run from a cluster in it. */
function processesOfHome(): { readonly pid: string; readonly command: string }[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name) && Number(name) !== process.pid)
    .flatMap((name) => {
      try {
        const command = readFileSync(`/proc/${name}/cmdline`, 'utf8').replaceAll('\0', ' ');
        return command.includes(home) ? [{ pid: name, command }] : [];
      } catch {
        return [];
      }
    });
}

const answers = async (address: string) => (await fetch(`${address}/api/session`)).status;

test.describe.configure({ mode: 'serial' });
test.setTimeout(120_000);
test.afterAll(() => rmSync(home, { recursive: true, force: true }));

test('a start; a second from the same folder is told so; asked to end, nothing is left behind', async () => {
  const { child, studio, ended } = await start();
  expect(await answers(studio)).toBe(401);
  expect(readFileSync(`${home}/database.json`, 'utf8')).toContain('isWhole');
  const second = await start(false);
  expect(await second.ended).toBe(1);
  expect(second.output()).toContain('already runs from this folder');
  expect(await answers(studio)).toBe(401);
  child.kill('SIGTERM');
  expect(await ended).toBe(0);
  expect(processesOfHome()).toEqual([]);
  expect(existsSync(`${home}/running.json`)).toBe(false);
});

test('a damaged lock is taken over, a busy port passed by, the data is kept; after a kill everything ends', async () => {
  writeFileSync(`${home}/running.json`, '{"pid":');
  const blocker = createServer();
  await new Promise<void>((resolve) => blocker.listen(BASE, '127.0.0.1', resolve));
  const { child, studio, ended } = await start();
  expect(studio).not.toContain(`:${BASE}`);
  const signedIn = await fetch(`${studio}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'mara@quillonfell.example', password: 'clear-skies-tonight' }),
  });
  expect(signedIn.status).toBe(200);
  await new Promise((resolve) => blocker.close(resolve));
  child.kill('SIGKILL');
  await ended;
  await expect.poll(processesOfHome).toEqual([]);
});

test('over the lock of a process that was killed: a database that dies is noticed and started again; interrupted, nothing is left', async () => {
  expect(existsSync(`${home}/running.json`)).toBe(true);
  const { child, studio, ended, output } = await start();
  const memory = Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1]);
  // Kilobytes; building took half a gigabyte when it was done in the same process.
  expect(memory).toBeLessThan(200_000);
  // A process it has just made still calls itself as it does.
  const [postmaster] = readFileSync(`${home}/pg/data/postmaster.pid`, 'utf8').split('\n');
  process.kill(Number(postmaster), 'SIGKILL');
  await expect.poll(output, { timeout: 30_000 }).toContain('PostgreSQL is there again.');
  await expect.poll(() => answers(studio)).toBe(401);
  expect(output()).toContain('PostgreSQL has ended. Starting it again …');
  child.kill('SIGINT');
  expect(await ended).toBe(0);
  expect(processesOfHome()).toEqual([]);
});
