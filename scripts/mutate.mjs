/**
 * Breaks the core on purpose, one small fault at a time, and counts how many the core's own tests notice.
 *
 *   node scripts/mutate.mjs [how many, 200] [seed, 1]
 *
 * Works on copies in `.velarium/mutants` and prints what survived. Not part of the test command, for it takes long; see
 * docs/testing.md.
 */
import { spawn } from 'node:child_process';
import { cpSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import ts from 'typescript';
import { ROOT } from './lib/root.mjs';

const [count, seed] = [Number(process.argv[2] ?? 200), Number(process.argv[3] ?? 1)];
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

/** Every place of a file that can be broken: from, to, and what is put there. */
function placesIn(file) {
  const text = readFileSync(`${CORE}/${file}`, 'utf8');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.ES2022, true);
  const places = [];
  const put = (node, wrong) =>
    places.push({ file, from: node.getStart(source), to: node.getEnd(), right: node.getText(source), wrong });
  const visit = (node) => {
    if (ts.isTypeNode(node) || ts.isInterfaceDeclaration(node) || ts.isTypeAliasDeclaration(node)) return;
    if (ts.isBinaryExpression(node)) {
      const sign = node.operatorToken.getText(source);
      const isText = [node.left, node.right].some(
        (one) => ts.isStringLiteralLike(one) || ts.isTemplateExpression(one),
      );
      const wrong = MISTAKES.get(sign);
      if (wrong && !(sign === '+' && isText)) put(node.operatorToken, wrong);
    }
    if (ts.isNumericLiteral(node)) put(node, String(Number(node.text.replaceAll('_', '')) + 1));
    if (node.kind === ts.SyntaxKind.TrueKeyword) put(node, 'false');
    if (node.kind === ts.SyntaxKind.FalseKeyword) put(node, 'true');
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      put(node, node.operand.getText(source));
    if (ts.isConditionalExpression(node)) put(node.condition, `!(${node.condition.getText(source)})`);
    if (ts.isIfStatement(node)) put(node.expression, 'false');
    ts.forEachChild(node, visit);
  };
  visit(source);
  return places.map((place) => ({
    ...place,
    line: source.getLineAndCharacterOfPosition(place.from).line + 1,
  }));
}

/** Numbers that are the same for the same seed. Source: mulberry32 (public domain), from memory. */
function numbers(state) {
  let at = state;
  return () => {
    at = (at + 0x6d2b79f5) | 0;
    let mixed = Math.imul(at ^ (at >>> 15), 1 | at);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

const files = readdirSync(CORE, { recursive: true }).filter(
  (name) => name.endsWith('.ts') && !/\.test\.ts$|^testing\/|^templates\//.test(name),
);
const random = numbers(seed);
const chosen = files
  .flatMap(placesIn)
  .map((place) => ({ place, at: random() }))
  .sort((a, b) => a.at - b.at)
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
      { cwd: copy, stdio: 'ignore', timeout: LONGEST_MS, killSignal: 'SIGKILL' },
    );
    child.once('exit', (code) => resolve(code === 0));
  });
}

async function work(name) {
  const copy = `${ROOT}/.velarium/mutants/${name}`;
  rmSync(copy, { recursive: true, force: true });
  cpSync(`${ROOT}/packages/core`, `${copy}/packages/core`, { recursive: true });
  cpSync(`${ROOT}/docs`, `${copy}/docs`, { recursive: true });
  writeFileSync(
    `${copy}/vitest.config.mjs`,
    `export default { test: { include: ['packages/core/src/**/*.test.ts'], setupFiles: ['${ROOT}/scripts/lib/seed.mjs'], maxWorkers: 1, testTimeout: 30000 } };`,
  );
  for (let place = chosen.pop(); place; place = chosen.pop()) {
    const path = `${copy}/packages/core/src/${place.file}`;
    const text = readFileSync(path, 'utf8');
    writeFileSync(path, text.slice(0, place.from) + place.wrong + text.slice(place.to));
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
