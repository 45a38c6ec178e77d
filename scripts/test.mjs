// The whole test command: checks, unit tests, server tests over a real database, and the real interface in a real
// browser. Its last line counts everything that ran.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { relative } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { buildAll } from './lib/build-all.mjs';
import { ensureChromium, ensurePackages, ensurePostgres } from './lib/install.mjs';
import { ROOT, Stop } from './lib/root.mjs';

const reports = mkdtempSync('/tmp/velarium-reports-');
const bin = (name) => `${ROOT}/node_modules/.bin/${name}`;
const total = { passed: 0, failed: 0 };
/** Told once more at the end, with what was wrong: the place of a failure in ten thousand lines is far up. */
const failures = [];
const children = new Set();

/** Runs a command with its output in sight; resolves to its exit code. */
function show(command, args, env = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, npm_config_loglevel: 'error', ...env },
    });
    children.add(child);
    child.once('error', reject);
    child.once('exit', (code) => {
      children.delete(child);
      resolve(code ?? 1);
    });
  });
}

async function timed(name, work) {
  const startedAtMs = Date.now();
  console.log(`\n── ${name}`);
  await work();
  console.log(`── ${name}: ${((Date.now() - startedAtMs) / 1000).toFixed(1)} s`);
}

/** A check is one test: it passes or it does not. */
async function check(name, work) {
  await timed(name, async () => {
    const isRight = await work();
    total[isRight ? 'passed' : 'failed'] += 1;
    if (!isRight) failures.push(name);
  });
}

const readReport = (file) => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return undefined;
  }
};

/** What went wrong in a few lines, without the colours a terminal would have. */
const told = (title, messages) =>
  [title, ...stripVTControlCharacters(messages.join('\n')).trim().split('\n').slice(0, 12)].join('\n    ');

/** Playwright's specs that did not pass, of suites within suites. */
const failedSpecs = (suites) =>
  suites.flatMap(({ specs = [], suites: inner = [] }) => [
    ...specs
      .filter(({ ok }) => !ok)
      .map(({ title, tests }) => {
        const errors = tests.flatMap(({ results }) => results).flatMap(({ errors = [] }) => errors);
        return told(
          title,
          errors.map(({ message = '', location }) =>
            location ? `${relative(ROOT, location.file)}:${location.line} ${message}` : message,
          ),
        );
      }),
    ...failedSpecs(inner),
  ]);

/** A runner that failed without a failed test (it crashed, or found none) counts as one failure. */
function count(name, code, passed, failed) {
  total.passed += passed;
  total.failed += failed || (code === 0 && passed > 0 ? 0 : 1);
  if (code !== 0 && !failed) failures.push(`${name} ended with ${code}`);
}

async function importLaw() {
  const { cruise } = await import('dependency-cruiser');
  const { default: config } = await import('../.dependency-cruiser.cjs');
  const { output } = await cruise(['packages', 'apps'], {
    ruleSet: { forbidden: config.forbidden },
    validate: true,
    ...config.options,
  });
  for (const { rule, from, to } of output.summary.violations)
    console.log(`${rule.name}: ${from} imports ${to}`);
  console.log(`${output.summary.totalCruised} modules`);
  // A cruiser that cannot read TypeScript finds no module and no fault.
  return output.summary.error === 0 && output.summary.totalCruised > 150;
}

async function main() {
  await ensurePackages(console.log);
  await ensurePostgres(console.log);
  await ensureChromium(console.log);
  // The types take half a minute, and tests of the server wait for a database or a clock at times.
  const types = check('types', async () => (await show('npm', ['run', 'types'])) === 0);
  await check('format and lint', async () => (await show(bin('biome'), ['ci', '.'])) === 0);
  await check('import law', importLaw);
  await check('dead code', async () => (await show(bin('knip'), ['--no-progress'])) === 0);
  await timed('unit and server tests', async () => {
    const file = `${reports}/unit.json`;
    const code = await show(bin('vitest'), [
      'run',
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${file}`,
    ]);
    const report = readReport(file);
    for (const { assertionResults } of report?.testResults ?? [])
      for (const { status, fullName, failureMessages = [] } of assertionResults)
        if (status === 'failed') failures.push(told(fullName, failureMessages));
    count('unit and server tests', code, report?.numPassedTests ?? 0, report?.numFailedTests ?? 0);
  });
  await types;
  await check('build', async () =>
    buildAll(console.log).then(
      () => true,
      (error) => console.log(error),
    ),
  );
  await timed('the real interface', async () => {
    const file = `${reports}/e2e.json`;
    const code = await show(bin('playwright'), ['test', '-c', 'e2e/playwright.config.ts'], {
      VELARIUM_E2E_REPORT: file,
    });
    const report = readReport(file);
    failures.push(...failedSpecs(report?.suites ?? []));
    const { expected = 0, unexpected = 0, flaky = 0 } = report?.stats ?? {};
    count('the real interface', code, expected, unexpected + flaky);
  });
}

for (const signal of ['SIGINT', 'SIGTERM']) {
  process.once(signal, () => {
    for (const child of children) child.kill(signal);
    rmSync(reports, { recursive: true, force: true });
    process.exit(1);
  });
}

try {
  await main();
} catch (error) {
  total.failed += 1;
  console.error(error instanceof Stop ? error.message : error);
}
rmSync(reports, { recursive: true, force: true });
for (const name of failures) console.log(`FAILED: ${name}`);
console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed === 0 ? 0 : 1);
