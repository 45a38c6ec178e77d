import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';

const ROOT = new URL('..', import.meta.url).pathname;

export interface Starts {
  /** From a fresh clone: packages, cluster, seed, build. Debian's packages were there. */
  readonly firstSeconds: number;
  readonly secondSeconds: number;
  /** Everything that runs, PostgreSQL included. */
  readonly residentMb: number;
}

/** Times `npm start` in a fresh clone of the last commit, twice, and adds up the memory of the running whole. */
export async function measureStarts(): Promise<Starts> {
  const clone = mkdtempSync('/tmp/velarium-clone-');
  execFileSync('git', ['clone', '-q', ROOT, clone]);
  try {
    const first = await start(clone);
    await first.stop();
    const second = await start(clone);
    const residentMb = residentMbBelow(second.pid);
    await second.stop();
    return { firstSeconds: first.seconds, secondSeconds: second.seconds, residentMb };
  } finally {
    rmSync(clone, { recursive: true, force: true });
  }
}

async function start(folder: string) {
  const startedAtMs = performance.now();
  const child = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: folder,
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  let output = '';
  await new Promise<void>((resolve, reject) => {
    for (const stream of [child.stdout, child.stderr]) {
      stream.on('data', (chunk) => {
        output += chunk;
        if (output.includes('Velarium is ready')) resolve();
      });
    }
    void ended.then(() => reject(new Error(`npm start ended early:\n${output}`)));
  });
  return {
    pid: child.pid ?? 0,
    seconds: (performance.now() - startedAtMs) / 1000,
    stop: async () => {
      child.kill('SIGINT');
      await ended;
    },
  };
}

/** Proportional share of memory of a process and all below it, so what they share is counted once. */
function residentMbBelow(root: number): number {
  const parents = new Map<number, number>();
  for (const name of readdirSync('/proc').filter((one) => /^\d+$/.test(one))) {
    try {
      const stat = readFileSync(`/proc/${name}/stat`, 'utf8').split(') ')[1]?.split(' ');
      parents.set(Number(name), Number(stat?.[1]));
    } catch {
      // It ended while we looked.
    }
  }
  const isBelow = (pid: number): boolean =>
    pid === root || (parents.has(pid) && isBelow(parents.get(pid) ?? 0));
  const kilobytes = [...parents.keys()].filter(isBelow).map((pid) => {
    try {
      return Number(/^Pss:\s+(\d+) kB/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8'))?.[1] ?? 0);
    } catch {
      return 0;
    }
  });
  return kilobytes.reduce((sum, one) => sum + one, 0) / 1024;
}
