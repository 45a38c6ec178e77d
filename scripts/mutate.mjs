/**
 * Breaks the core on purpose, one small fault at a time, and counts how many the core's own tests notice.
 *
 *   node scripts/mutate.mjs [how many, 200] [seed, 1] [only in files whose path begins so]
 *
 * Works on copies in `.velarium/mutants` and prints what survived. Not part of the test command, for it takes long; see
 * docs/testing.md.
 */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { parseSync } from '@swc/core';
import { ROOT } from './lib/root.mjs';

const [count, seed] = [Number(process.argv[2] ?? 200), Number(process.argv[3] ?? 1)];
const only = process.argv[4] ?? '';
const CORE = `${ROOT}/packages/core/src`;
const LONGEST_MS = 90_000;

/** What stands for an operator when it is mistaken. */
const MISTAKES = new Map([
  ['<', '<='],
  ['<=', '<'],
  ['>', '>='],
  ['>=', '>'],
  ['===', '!=='],
  ['!==', '==='],
  ['&&', '||'],
  ['||', '&&'],
  ['+', '-'],
  ['-', '+'],
  ['*', '/'],
  ['/', '*'],
  ['%', '*'],
]);

/** Every place of a file that can be broken: from, to (bytes), and what is put there. */
function placesIn(file) {
  const text = readFileSync(`${CORE}/${file}`);
  // Spans go on from file to file; an empty statement before everything says where this one begins.
  const module = parseSync(`;${text}`, { syntax: 'typescript', target: 'es2022' });
  const begin = module.span.start + 1;
  const places = [];
  const put = (from, to, wrong) =>
    places.push({
      file,
      from,
      to,
      wrong,
      right: text.subarray(from, to).toString(),
      line: text.subarray(0, from).toString().split('\n').length,
    });
  const at = ({ span }) => [span.start - begin, span.end - begin];
  const words = (node) => text.subarray(...at(node)).toString();
  const visit = (node) => {
    if (Array.isArray(node)) return node.forEach(visit);
    if (typeof node !== 'object' || node === null || /^Ts(?!As|NonNull|Satisfies|Const)/.test(node.type))
      return;
    if (node.type === 'BinaryExpression') {
      const wrong = MISTAKES.get(node.operator);
      const isText = [node.left, node.right].some(({ type }) =>
        /^(StringLiteral|TemplateLiteral)$/.test(type),
      );
      const between = at(node.left)[1];
      const from = text.indexOf(node.operator, between);
      if (wrong && !(node.operator === '+' && isText)) put(from, from + node.operator.length, wrong);
    }
    if (node.type === 'NumericLiteral') put(...at(node), String(node.value + 1));
    if (node.type === 'BooleanLiteral') put(...at(node), String(!node.value));
    if (node.type === 'UnaryExpression' && node.operator === '!') put(...at(node), words(node.argument));
    if (node.type === 'ConditionalExpression') put(...at(node.test), `!(${words(node.test)})`);
    if (node.type === 'IfStatement') put(...at(node.test), 'false');
    Object.values(node).forEach(visit);
  };
  visit(module.body);
  return places;
}

/** Where in the row a place comes: any order will do that is the same for the same seed. */
const orderOf = ({ file, from, wrong }) =>
  createHash('sha256').update([seed, file, from, wrong].join(' ')).digest('hex');

const files = readdirSync(CORE, { recursive: true }).filter(
  (name) =>
    name.startsWith(only) && name.endsWith('.ts') && !/\.test\.ts$|^testing\/|^templates\//.test(name),
);
const chosen = files
  .flatMap(placesIn)
  .map((place) => ({ place, order: orderOf(place) }))
  .sort((a, b) => (a.order < b.order ? -1 : 1))
  .slice(0, count)
  .map(({ place }) => place);

/** Whether the tests near a file pass in a copy. */
function passes(copy, file) {
  return new Promise((resolve) => {
    const child = spawn(
      process.execPath,
      [
        `${ROOT}/node_modules/vitest/vitest.mjs`,
        'related',
        `${copy}/packages/core/src/${file}`,
        '--run',
        '--bail=1',
        '--reporter=dot',
        `--root=${copy}`,
      ],
      { cwd: copy, stdio: 'ignore', detached: true },
    );
    // With its workers: one that a fault has sent round for ever would outlive it.
    const timer = setTimeout(() => process.kill(-child.pid, 'SIGKILL'), LONGEST_MS);
    child.once('exit', (code) => {
      clearTimeout(timer);
      resolve(code === 0);
    });
  });
}

async function work(name) {
  const copy = `${ROOT}/.velarium/mutants/${name}`;
  rmSync(copy, { recursive: true, force: true });
  cpSync(`${ROOT}/packages/core`, `${copy}/packages/core`, { recursive: true });
  cpSync(`${ROOT}/tsconfig.base.json`, `${copy}/tsconfig.base.json`);
  cpSync(`${ROOT}/docs`, `${copy}/docs`, { recursive: true });
  writeFileSync(
    `${copy}/vitest.config.mjs`,
    `export default { test: { include: ['packages/core/src/**/*.test.ts'], setupFiles: ['${ROOT}/scripts/lib/seed.mjs'], maxWorkers: 1, testTimeout: 30000 } };`,
  );
  // What fails unbroken would count as noticed.
  if (!(await passes(copy, 'index.ts')))
    throw new Error('mutate: the core fails its tests before anything is broken');
  for (let place = chosen.pop(); place; place = chosen.pop()) {
    const path = `${copy}/packages/core/src/${place.file}`;
    const text = readFileSync(path);
    const [before, after] = [text.subarray(0, place.from), text.subarray(place.to)];
    writeFileSync(path, Buffer.concat([before, Buffer.from(place.wrong), after]));
    if (await passes(copy, place.file)) {
      survived++;
      console.log(`survived  ${place.file}:${place.line}  ${place.right}  →  ${place.wrong}`);
    } else killed++;
    writeFileSync(path, text);
  }
  rmSync(copy, { recursive: true, force: true });
}

let killed = 0;
let survived = 0;
await Promise.all(Array.from({ length: availableParallelism() }, (_, n) => work(String(n))));
console.log(
  `${killed} of ${killed + survived} noticed, ${((100 * killed) / (killed + survived)).toFixed(1)} %`,
);
