import { parseSync } from '@swc/core';

/** What stands for an operator when it is mistaken, and what asks for it in code that holds every fault. */
const OPERATORS = new Map([
  ['<', ['<=', 'less']],
  ['<=', ['<', 'atMost']],
  ['>', ['>=', 'more']],
  ['>=', ['>', 'atLeast']],
  ['===', ['!==', 'same']],
  ['!==', ['===', 'other']],
  ['+', ['-', 'plus']],
  ['-', ['+', 'minus']],
  ['*', ['/', 'times']],
  ['/', ['*', 'over']],
  ['%', ['*', 'rest']],
  ['&&', ['||', 'and']],
  ['||', ['&&', 'or']],
]);
const isLazy = (operator) => operator === '&&' || operator === '||';
/** Types say nothing that runs, but for what wraps a value. */
const isType = ({ type }) => /^Ts(?!As|NonNull|Satisfies|Const)/.test(type ?? '');
const isText = ({ type }) => /^(StringLiteral|TemplateLiteral)$/.test(type);

/**
 * The text of a module with every fault in it at once, each asleep until its number is called: one operator, number, negation,
 * condition or branch that is wrong.
 *
 * @param places What is found is added to them; the number of a fault is where it stands there.
 */
export function instrument(file, source, places) {
  const text = Buffer.from(source);
  // Spans go on from file to file, in bytes; an empty statement before everything says where this one begins.
  const module = parseSync(`;${source}`, { syntax: 'typescript', target: 'es2022' });
  const begin = module.span.start + 1;
  const at = ({ span }) => [span.start - begin, span.end - begin];
  const add = (from, right, wrong) =>
    places.push({ file, from, right, wrong, line: text.subarray(0, from).toString().split('\n').length }) - 1;
  const splice = (from, to, edits) => {
    let [written, last] = ['', from];
    for (const [start, end, put] of edits.sort((a, b) => a[0] - b[0])) {
      written += text.subarray(last, start) + put;
      last = end;
    }
    return written + text.subarray(last, to);
  };
  /** The text of a node with the faults within it. */
  const withFaults = (node) => {
    const edits = [];
    collect(node, edits);
    return splice(...at(node), edits);
  };
  const asTest = (test, edits, right, wrong, name) => {
    const [from, to] = at(test);
    const id = add(from, right(text.subarray(from, to)), wrong);
    edits.push([from, to, `__${name}(${id},(${withFaults(test)}))`]);
  };
  function collect(node, edits, key) {
    if (Array.isArray(node)) {
      for (const one of node) collect(one, edits, key);
      return;
    }
    if (typeof node !== 'object' || node === null || isType(node)) return;
    const [from, to] = node.span ? at(node) : [0, 0];
    switch (node.type) {
      case 'BinaryExpression': {
        const { operator, left, right } = node;
        const [wrong, name] = OPERATORS.get(operator) ?? [];
        if (!wrong || (operator === '+' && (isText(left) || isText(right)))) break;
        const id = add(text.indexOf(operator, at(left)[1]), operator, wrong);
        const second = `(${withFaults(right)})`;
        edits.push([
          from,
          to,
          `__${name}(${id},(${withFaults(left)}),${isLazy(operator) ? `()=>${second}` : second})`,
        ]);
        return;
      }
      case 'NumericLiteral': {
        const id = add(from, text.subarray(from, to).toString(), `${node.value + 1}`);
        const call = `__value(${id},${node.value},${node.value + 1})`;
        edits.push([from, to, key === 'key' ? `[${call}]` : call]);
        return;
      }
      case 'BooleanLiteral':
        edits.push([
          from,
          to,
          `__value(${add(from, `${node.value}`, `${!node.value}`)},${node.value},${!node.value})`,
        ]);
        return;
      case 'UnaryExpression':
        if (node.operator !== '!') break;
        edits.push([from, to, `__not(${add(from, '!', '')},(${withFaults(node.argument)}))`]);
        return;
      case 'ConditionalExpression':
        asTest(node.test, edits, (test) => `${test} ?`, 'the other way round', 'either');
        collect([node.consequent, node.alternate], edits);
        return;
      case 'IfStatement':
        asTest(node.test, edits, (test) => `if (${test})`, 'never', 'when');
        collect([node.consequent, node.alternate], edits);
        return;
    }
    for (const [name, inner] of Object.entries(node)) if (name !== 'span') collect(inner, edits, name);
  }
  const edits = [];
  collect(module.body, edits);
  return splice(0, text.length, edits);
}
