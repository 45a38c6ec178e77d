import { fileURLToPath } from 'node:url';

/** The checkout's folder. */
export const ROOT = fileURLToPath(new URL('../..', import.meta.url)).replace(/\/$/, '');
/** Everything Velarium keeps on this machine: cluster, secrets, logs. */
export const HOME = process.env.VELARIUM_HOME ?? `${ROOT}/.velarium`;
export const isRoot = process.getuid?.() === 0;

/** Ends the run with words for a person instead of a stack. */
export class Stop extends Error {}
