// Runs tests of the core one by one, with one of its faults awake or with none; a worker of `scripts/mutate.mjs`.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import vm from 'node:vm';
import { parentPort, workerData } from 'node:worker_threads';
import * as vitestExpect from '@vitest/expect';
import { SEED } from '../lib/seed.mjs';
import { faults } from './faults.mjs';

const { chai, getState, setState } = vitestExpect;
chai.use(vitestExpect.JestExtend);
chai.use(vitestExpect.JestChaiExpect);
chai.use(vitestExpect.JestAsymmetricMatchers);
const require = createRequire(import.meta.url);
// The same cases for every fault, and no smaller one than the first that fails.
require('fast-check').configureGlobal({ seed: SEED, endOnFailure: true });
const runner = require('./stand-in.cjs');
runner.expect = chai.expect;
setState(getState(chai.expect) ?? { assertionCalls: 0 }, chai.expect);

const { count, bundles } = workerData;
const { wake, sleep, takeMet } = faults(count);

const scripts = new Map();
/** The tests of a file, from modules read anew: what they keep would outlive a fault. */
function testsOf(file) {
  const { path, url } = bundles[file];
  const script =
    scripts.get(file) ??
    vm.runInThisContext(`((require,module,exports,__metaUrl)=>{${readFileSync(path, 'utf8')}\n})`, {
      filename: path,
    });
  scripts.set(file, script);
  const module = { exports: {} };
  script(require, module, module.exports, url);
  return runner.takeTests();
}
const passes = async ({ run }) => {
  try {
    await run();
    return true;
  } catch {
    return false;
  }
};

/** What each test of a file comes to, and how long it takes; without a fault. */
async function comeTo(file) {
  takeMet();
  const tests = testsOf(file);
  const whileLoading = takeMet();
  const told = [];
  for (const test of tests) {
    const begun = performance.now();
    const isPassed = await passes(test);
    told.push({ name: test.name, isPassed, ms: performance.now() - begun, met: takeMet() });
  }
  return { file, whileLoading, tests: told };
}

/** Whether any of these tests fails with a fault awake; of a file that is given without numbers, all of its tests. */
async function isNoticed({ id, asked }) {
  for (const { file, tests: numbers } of asked) {
    // A fault that is met as modules are read is awake by then.
    if (!numbers) wake(id);
    let tests = [];
    try {
      tests = testsOf(file);
    } catch {
      sleep();
      return true;
    }
    wake(id);
    for (const n of numbers ?? tests.keys()) {
      if (tests[n] && (await passes(tests[n]))) continue;
      sleep();
      return true;
    }
    sleep();
  }
  return false;
}

parentPort.on('message', async (job) => {
  parentPort.postMessage(job.file ? await comeTo(job.file) : { id: job.id, isNoticed: await isNoticed(job) });
});
parentPort.postMessage('ready');
