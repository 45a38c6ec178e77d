import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { HOME, Stop } from './root.mjs';

const FILE = `${HOME}/running.json`;

/** Whether the process that wrote the lock still runs; its start time tells it from a later one of the same number. */
function isAlive({ pid, startedAt }) {
  try {
    return startTime(pid) === startedAt;
  } catch {
    return false;
  }
}
const startTime = (pid) => readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ')[19];

/** Takes the home for this process. A lock left by a crash is taken over. Returns the undo. */
export function takeHome() {
  mkdirSync(HOME, { recursive: true });
  const mine = JSON.stringify({ pid: process.pid, startedAt: startTime(process.pid) });
  for (let tries = 0; tries < 2; tries++) {
    try {
      writeFileSync(FILE, mine, { flag: 'wx' });
      return () => rmSync(FILE, { force: true });
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
      let holder;
      try {
        holder = JSON.parse(readFileSync(FILE, 'utf8'));
      } catch {
        holder = undefined;
      }
      if (holder && isAlive(holder)) {
        throw new Stop(
          `Velarium already runs from this folder (process ${holder.pid}). Stop it there with Ctrl+C first.`,
        );
      }
      rmSync(FILE, { force: true });
    }
  }
  throw new Stop(`The lock ${FILE} could not be taken.`);
}
