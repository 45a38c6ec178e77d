import fc from 'fast-check';

/**
 * Property tests draw the same cases in every run, so that a change is judged by what it changed. A hunt through
 * other cases is asked for: `VELARIUM_SEED=7 npx vitest run packages`.
 */
export const SEED = Number(process.env.VELARIUM_SEED ?? 20_261_126);
fc.configureGlobal({ seed: SEED });
