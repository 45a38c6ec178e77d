/**
 * Breaks the core on purpose, one small fault at a time, and counts how many the core's own tests notice.
 *
 *   node scripts/mutate.mjs [how many, or "all"; 200] [seed, 1] [only in files whose path begins so]
 *
 * Every fault is in the code at once, asleep; each is woken by itself and the tests that come to it are run. Prints what
 * survived. Not part of the test command; see docs/testing.md.
 */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { dirname } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Worker } from 'node:worker_threads';
import { build } from 'esbuild';
import { ROOT } from './lib/root.mjs';
import { instrument } from './mutants/instrument.mjs';

const [wanted, seed, only = ''] = [process.argv[2] ?? '200', Number(process.argv[3] ?? 1), process.argv[4]];
const CORE = `${ROOT}/packages/core/src`;
const OUT = `${ROOT}/.velarium/mutants`;
/** Tests asked for one fault, by how long they take without it: what only slower ones would notice counts as survived. */
const MOST_MS = 6000;
/** A fault that sends a test round for ever is noticed. */
const patienceMs = (testsMs) => 8000 + testsMs * 8;

const files = readdirSync(CORE, { recursive: true });
const tests = files.filter((file) => file.endsWith('.test.ts'));
/** Templates and words of test helpers are left out. */
const isBroken = (file) => file.endsWith('.ts') && !/\.test\.ts$|^testing\/|^templates\//.test(file);

/** Every file of tests as one script, with the core's faults in it. */
async function bundleTests() {
  rmSync(OUT, { recursive: true, force: true });
  const places = [];
  const sources = new Map(
    files
      .filter(isBroken)
      .map((file) => [`${CORE}/${file}`, instrument(file, readFileSync(`${CORE}/${file}`, 'utf8'), places)]),
  );
  const common = { bundle: true, platform: 'node', format: 'cjs', target: 'node20', logLevel: 'error' };
  await build({
    ...common,
    entryPoints: {
      all: `${ROOT}/packages/contract/src/index.ts`,
      values: `${ROOT}/packages/contract/src/values.ts`,
    },
    outdir: `${OUT}/contract`,
    outExtension: { '.js': '.cjs' },
  });
  await build({
    ...common,
    entryPoints: tests.map((file) => `${CORE}/${file}`),
    outdir: `${OUT}/tests`,
    outbase: CORE,
    treeShaking: false,
    define: { 'import.meta.url': '__metaUrl' },
    plugins: [
      {
        name: 'faults',
        setup({ onLoad, onResolve }) {
          onLoad({ filter: /\.ts$/ }, ({ path }) =>
            sources.has(path) ? { contents: sources.get(path), loader: 'ts' } : undefined,
          );
          onResolve({ filter: /^@velarium\/contract/ }, ({ path }) => ({
            path: `${OUT}/contract/${path.endsWith('/values') ? 'values' : 'all'}.cjs`,
            external: true,
          }));
          onResolve({ filter: /^vitest$/ }, () => ({
            path: `${ROOT}/scripts/mutants/stand-in.cjs`,
            external: true,
          }));
          onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
            kind === 'entry-point' ? undefined : { path, external: true },
          );
        },
      },
    ],
  });
  const bundles = Object.fromEntries(
    tests.map((file) => [
      file,
      { path: `${OUT}/tests/${file.replace(/\.ts$/, '.js')}`, url: pathToFileURL(`${CORE}/${file}`).href },
    ]),
  );
  return { places, bundles };
}

/**
 * Gives each of some jobs to a worker, as many at a time as there are cores. One that does not come back is told as `lost`, and
 * its worker is replaced.
 */
function work(workerData, jobs, patienceOf, done) {
  const queue = [...jobs];
  const one = () =>
    new Promise((resolve) => {
      const begin = () => {
        const worker = new Worker(`${ROOT}/scripts/mutants/worker.mjs`, { workerData });
        let job;
        let timer;
        const next = () => {
          job = queue.shift();
          if (!job) {
            worker.terminate();
            resolve();
            return;
          }
          timer = setTimeout(() => {
            worker.removeAllListeners();
            worker.terminate();
            done(job, undefined);
            begin();
          }, patienceOf(job));
          worker.postMessage(job);
        };
        worker.on('message', (answer) => {
          clearTimeout(timer);
          if (answer !== 'ready') done(job, answer);
          next();
        });
        worker.on('error', (error) => {
          clearTimeout(timer);
          done(job, undefined, error);
          begin();
        });
      };
      begin();
    });
  return Promise.all(Array.from({ length: availableParallelism() }, one));
}

/** How near a file of tests stands to what is broken. */
const nearness = (file, test) =>
  dirname(test) === dirname(file) ? (test === file.replace(/\.ts$/, '.test.ts') ? 0 : 1) : 2;

/** The tests asked of a fault, the nearest and quickest first: those that come to it, and all of a file that does as it is read. */
function askedOf({ file }, { running, loading }) {
  const asked = new Map();
  let sum = 0;
  const fits = (ms) => {
    if (sum > 0 && sum + ms > MOST_MS) return false;
    sum += ms;
    return true;
  };
  const near = (a, b) => nearness(file, a.test) - nearness(file, b.test) || a.ms - b.ms;
  for (const { test, ms } of [...loading].sort(near)) if (fits(ms)) asked.set(test, { file: test, ms });
  for (const { test, n, ms } of [...running].sort(near)) {
    const one = asked.get(test) ?? { file: test, tests: [], ms: 0 };
    if (one.tests && fits(ms)) asked.set(test, { ...one, tests: [...one.tests, n] });
  }
  return { asked: [...asked.values()], ms: sum };
}

const { places, bundles } = await bundleTests();
const workerData = { count: places.length, bundles };
const comes = places.map(() => ({ running: [], loading: [] }));
const failing = [];
await work(
  workerData,
  tests.map((file) => ({ file })),
  () => 600_000,
  ({ file }, answer, error) => {
    if (!answer) failing.push(`${file}: ${error?.message ?? 'it does not end'}`);
    const { whileLoading = [], tests: told = [] } = answer ?? {};
    const ms = told.reduce((all, one) => all + one.ms, 0);
    for (const id of whileLoading) comes[id].loading.push({ test: file, ms });
    told.forEach(({ name, isPassed, ms: took, met }, n) => {
      if (!isPassed) failing.push(`${file}: ${name}`);
      for (const id of met) comes[id].running.push({ test: file, n, ms: took });
    });
  },
);
// What fails unbroken would count as noticed.
if (failing.length > 0) throw new Error(`mutate: fails before anything is broken: ${failing.join('; ')}`);

/** Where in the row a place comes: any order will do that is the same for the same seed. */
const orderOf = ({ file, from, wrong }) =>
  createHash('sha256').update([seed, file, from, wrong].join(' ')).digest('hex');
const chosen = places
  .map((place, id) => ({ place, id, order: orderOf(place) }))
  .filter(({ place }) => place.file.startsWith(only))
  .sort((a, b) => (a.order < b.order ? -1 : 1))
  .slice(0, wanted === 'all' ? places.length : Number(wanted));

let noticed = 0;
const survived = [];
await work(
  workerData,
  chosen.map(({ place, id }) => ({ id, ...askedOf(place, comes[id]) })),
  ({ ms }) => patienceMs(ms),
  ({ id }, answer) => {
    if (!answer || answer.isNoticed) noticed++;
    else survived.push(places[id]);
  },
);
survived.sort((a, b) => (a.file < b.file ? -1 : a.file > b.file ? 1 : a.from - b.from));
for (const { file, line, right, wrong } of survived)
  console.log(`survived  ${file}:${line}  ${right}  →  ${wrong || 'nothing'}`);
console.log(
  `${noticed} of ${chosen.length} noticed, ${((100 * noticed) / chosen.length).toFixed(1)} %; ${places.length} places in all`,
);
rmSync(OUT, { recursive: true, force: true });
