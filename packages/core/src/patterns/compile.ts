/**
 * Patterns for addresses, compiled to a small automaton and run in time linear in the address: no rule of a
 * marketer can hang a visitor's page or our server. Source: Thompson (1968), "Regular expression search algorithm";
 * Cox (2007), "Regular expression matching can be simple and fast".
 */

/** One instruction; numbers are positions in the program. `set` matches one character inside its ranges. */
type Instruction =
  | readonly ['set', isNegated: boolean, ranges: readonly number[]]
  | readonly ['split', a: number, b: number]
  | readonly ['start']
  | readonly ['end']
  | readonly ['match'];
export type Program = readonly Instruction[];

/** What is wrong with a pattern, and where. */
export class PatternError extends Error {
  constructor(
    readonly reason: string,
    readonly at: number,
  ) {
    super(`${reason} (at character ${at + 1})`);
  }
}

/** Repetitions are unrolled, so they must be few. */
const MOST_REPEATS = 50;
const MOST_INSTRUCTIONS = 2000;
/** Parts written at most, those that come to nothing too: repeated empty groups are work without an instruction. */
const MOST_WRITTEN = 20_000;

type Node =
  | { readonly kind: 'set'; readonly isNegated: boolean; readonly ranges: readonly number[] }
  | { readonly kind: 'start' | 'end' | 'empty' }
  | { readonly kind: 'sequence' | 'choice'; readonly parts: readonly Node[] }
  | { readonly kind: 'repeat'; readonly part: Node; readonly least: number; readonly most: number };

const LAST = 0x10ffff;
const one = (character: string): readonly number[] => [
  character.codePointAt(0) as number,
  character.codePointAt(0) as number,
];
const DIGITS = [48, 57];
const WORD = [48, 57, 65, 90, 95, 95, 97, 122];
/** Source: ECMAScript, CharacterClassEscape :: s, white space and line terminators. */
const SPACE = [
  9, 13, 32, 32, 160, 160, 0x1680, 0x1680, 0x2000, 0x200a, 0x2028, 0x2029, 0x202f, 0x202f, 0x205f, 0x205f,
  0x3000, 0x3000, 0xfeff, 0xfeff,
];

/**
 * Compiles the linear-time subset of regular expressions: characters, `.`, classes, groups, `|`, `* + ? {m,n}`,
 * `^` and `$`, `\d \w \s` and their opposites. Looking around and back-references are refused.
 *
 * @throws {PatternError} With the reason, for the person who wrote it.
 */
export function compileRegex(pattern: string): Program {
  return emit(parse(pattern));
}

/** `*` is anything but `/` and `?`, `**` is anything; the pattern speaks of the whole address. */
export function compileWildcard(pattern: string): Program {
  const any = (isWide: boolean): Node => ({
    kind: 'repeat',
    part: { kind: 'set', isNegated: true, ranges: isWide ? [] : [...one('/'), ...one('?')] },
    least: 0,
    most: Number.POSITIVE_INFINITY,
  });
  const parts = (pattern.match(/\*\*|\*|[^*]/gsu) ?? []).map(
    (piece): Node =>
      piece === '**'
        ? any(true)
        : piece === '*'
          ? any(false)
          : { kind: 'set', isNegated: false, ranges: one(piece) },
  );
  return emit({ kind: 'sequence', parts: [{ kind: 'start' }, ...parts, { kind: 'end' }] });
}

function parse(pattern: string): Node {
  const characters = Array.from(pattern);
  let at = 0;
  const fail = (reason: string, place = at): never => {
    throw new PatternError(reason, place);
  };
  const choice = (depth: number): Node => {
    if (depth > 20) fail('groups are nested too deep');
    const parts = [sequence(depth)];
    while (characters[at] === '|') {
      at++;
      parts.push(sequence(depth));
    }
    return parts.length === 1 ? (parts[0] as Node) : { kind: 'choice', parts };
  };
  const sequence = (depth: number): Node => {
    const parts: Node[] = [];
    while (at < characters.length && characters[at] !== '|' && characters[at] !== ')')
      parts.push(repeated(depth));
    return { kind: 'sequence', parts };
  };
  const repeated = (depth: number): Node => {
    let part = atom(depth);
    for (;;) {
      const [least, most] = quantifier();
      if (least === undefined) return part;
      // A lazy mark changes which match is found, never whether there is one.
      if (characters[at] === '?') at++;
      part = { kind: 'repeat', part, least, most };
    }
  };
  const quantifier = (): [number | undefined, number] => {
    const mark = characters[at];
    if (mark === '*' || mark === '+' || mark === '?') {
      at++;
      return [mark === '+' ? 1 : 0, mark === '?' ? 1 : Number.POSITIVE_INFINITY];
    }
    if (mark !== '{') return [undefined, 0];
    const found = /^\{(\d+)(,(\d*))?\}/.exec(characters.slice(at, at + 12).join(''));
    if (!found) return fail('after { a number is expected, as in {2} or {2,5}');
    const least = Number(found[1]);
    const most = found[2] === undefined ? least : found[3] ? Number(found[3]) : Number.POSITIVE_INFINITY;
    if (most < least) fail('the second number of a repetition must not be smaller than the first');
    if (Math.max(least, most === Number.POSITIVE_INFINITY ? 0 : most) > MOST_REPEATS) {
      fail(`at most ${MOST_REPEATS} repetitions can be asked for`);
    }
    at += found[0].length;
    return [least, most];
  };
  const atom = (depth: number): Node => {
    const character = characters[at++] as string;
    switch (character) {
      case '^':
        return { kind: 'start' };
      case '$':
        return { kind: 'end' };
      case '.':
        return { kind: 'set', isNegated: true, ranges: [10, 10, 13, 13, 0x2028, 0x2029] };
      case '[':
        return characterClass();
      case '(': {
        const opened = at - 1;
        if (characters[at] === '?') {
          if (characters[at + 1] !== ':') fail('looking ahead or behind and named groups cannot be used');
          at += 2;
        }
        const inner = choice(depth + 1);
        if (characters[at++] !== ')') fail('a group is not closed', opened);
        return inner;
      }
      case '*':
      case '+':
      case '?':
      case '{':
        at--;
        return fail('there is nothing to repeat');
      case '\\':
        return escaped();
      default:
        return { kind: 'set', isNegated: false, ranges: one(character) };
    }
  };
  const escaped = (): Node => {
    const character = characters[at++];
    if (character === undefined) return fail('a backslash at the end stands for nothing', at - 2);
    const known = classOf(character);
    if (known) return { kind: 'set', ...known };
    if (/[1-9kpPuxcbB]/.test(character)) fail(`\\${character} cannot be used`, at - 2);
    return { kind: 'set', isNegated: false, ranges: one(plain(character)) };
  };
  const characterClass = (): Node => {
    const opened = at - 1;
    const isNegated = characters[at] === '^';
    if (isNegated) at++;
    const ranges: number[] = [];
    while (at < characters.length && characters[at] !== ']') {
      const from = member();
      if (typeof from !== 'string') {
        ranges.push(...from);
        continue;
      }
      if (characters[at] === '-' && characters[at + 1] !== ']' && at + 1 < characters.length) {
        at++;
        const to = member();
        if (typeof to !== 'string' || (to.codePointAt(0) ?? 0) < (from.codePointAt(0) ?? 0))
          fail('a range runs backwards', at - 1);
        ranges.push(from.codePointAt(0) ?? 0, (to as string).codePointAt(0) ?? 0);
      } else ranges.push(...one(from));
    }
    if (characters[at++] !== ']') fail('a class is not closed', opened);
    return { kind: 'set', isNegated, ranges };
  };
  const member = (): string | readonly number[] => {
    const character = characters[at++] as string;
    if (character !== '\\') return character;
    const next = characters[at++];
    if (next === undefined) return fail('a backslash at the end stands for nothing', at - 2);
    const known = classOf(next);
    if (known) return known.isNegated ? inverted(known.ranges) : known.ranges;
    if (/[1-9kpPuxcbB]/.test(next)) fail(`\\${next} cannot be used`, at - 2);
    return plain(next);
  };
  const tree = choice(0);
  if (at < characters.length) fail('a ) closes nothing');
  return tree;
}

const plain = (character: string): string =>
  ({ n: '\n', r: '\r', t: '\t', f: '\f', v: '\v', 0: '\0' })[character] ?? character;

function classOf(letter: string): { isNegated: boolean; ranges: readonly number[] } | undefined {
  const ranges = { d: DIGITS, w: WORD, s: SPACE }[letter.toLowerCase()];
  return ranges && { isNegated: letter !== letter.toLowerCase(), ranges };
}

/** The ranges left out, in order; what a negated class inside a class stands for. */
function inverted(ranges: readonly number[]): number[] {
  const left: number[] = [];
  let from = 0;
  for (let n = 0; n < ranges.length; n += 2) {
    if ((ranges[n] as number) > from) left.push(from, (ranges[n] as number) - 1);
    from = (ranges[n + 1] as number) + 1;
  }
  return from <= LAST ? [...left, from, LAST] : left;
}

function emit(tree: Node): Program {
  const program: Instruction[] = [];
  const add = (instruction: Instruction): number => {
    if (program.length >= MOST_INSTRUCTIONS) throw new PatternError('the pattern is too large', 0);
    return program.push(instruction) - 1;
  };
  let written = 0;
  const write = (node: Node): void => {
    if (++written > MOST_WRITTEN) throw new PatternError('the pattern is too large', 0);
    switch (node.kind) {
      case 'empty':
        return;
      case 'start':
      case 'end':
        add([node.kind]);
        return;
      case 'set':
        add(['set', node.isNegated, node.ranges]);
        return;
      case 'sequence':
        for (const part of node.parts) write(part);
        return;
      case 'choice': {
        const ends: number[] = [];
        node.parts.forEach((part, n) => {
          if (n === node.parts.length - 1) {
            write(part);
            return;
          }
          const split = add(['split', 0, 0]);
          write(part);
          ends.push(add(['split', 0, 0]));
          program[split] = ['split', split + 1, program.length];
        });
        for (const end of ends) program[end] = ['split', program.length, program.length];
        return;
      }
      case 'repeat': {
        for (let n = 0; n < node.least; n++) write(node.part);
        if (node.most === Number.POSITIVE_INFINITY) {
          const split = add(['split', 0, 0]);
          write(node.part);
          add(['split', split, split]);
          program[split] = ['split', split + 1, program.length];
          return;
        }
        const splits: number[] = [];
        for (let n = node.least; n < node.most; n++) {
          splits.push(add(['split', 0, 0]));
          write(node.part);
        }
        for (const split of splits) program[split] = ['split', split + 1, program.length];
      }
    }
  };
  write(tree);
  add(['match']);
  return program;
}
