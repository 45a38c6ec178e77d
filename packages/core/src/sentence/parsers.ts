/** What a text says from a place on, and where that ends. */
type Read<Value> = readonly [value: Value, end: number];

/**
 * A grammar for reading back what the product says. A parser gives every way in which a text can be read from a place
 * on, each with what it says and where it ends; the longest comes first, so that whoever asks may go back and take a
 * shorter one.
 */
export type Parser<Value> = (text: string, at: number) => Generator<Read<Value>> | readonly Read<Value>[];
type Values<Parsers> = {
  [Index in keyof Parsers]: Parsers[Index] extends Parser<infer Value> ? Value : never;
};

/** These very words. */
export const words =
  <Value>(said: string, value: Value): Parser<Value> =>
  (text, at) =>
    text.startsWith(said, at) ? [[value, at + said.length]] : [];

/** What a pattern finds just here; nothing where `read` makes nothing of it. */
export const found = <Value>(pattern: RegExp, read: (match: string) => Value | undefined): Parser<Value> => {
  const sticky = new RegExp(pattern.source, 'uy');
  return (text, at) => {
    sticky.lastIndex = at;
    const match = sticky.exec(text)?.[0];
    const value = match === undefined ? undefined : read(match);
    return match === undefined || value === undefined ? [] : [[value, at + match.length]];
  };
};

export const either = <Value>(...parsers: readonly Parser<Value>[]): Parser<Value> =>
  function* (text, at) {
    for (const parser of parsers) yield* parser(text, at);
  };

/** One of several words, each standing for what it is filed under. */
export const oneOf = <Key extends string>(
  said: Readonly<Record<Key, string>>,
  filed: readonly Key[] = Object.keys(said) as Key[],
): Parser<Key> => either(...filed.map((key) => words(said[key], key)));

export const as = <From, To>(parser: Parser<From>, turn: (value: From) => To): Parser<To> =>
  function* (text, at) {
    for (const [value, end] of parser(text, at)) yield [turn(value), end];
  };

/** Words with parsers between them: said`after ${seconds} in the session`. */
export function said<const Parsers extends readonly Parser<unknown>[]>(
  { raw: literals }: TemplateStringsArray,
  ...parsers: Parsers
): Parser<Values<Parsers>> {
  function* from(n: number, text: string, at: number): Generator<Read<unknown[]>> {
    const literal = literals[n] ?? '';
    if (!text.startsWith(literal, at)) return;
    const parser = parsers[n];
    if (!parser) {
      yield [[], at + literal.length];
      return;
    }
    for (const [value, end] of parser(text, at + literal.length)) {
      for (const [values, last] of from(n + 1, text, end)) yield [[value, ...values], last];
    }
  }
  return (text, at) => from(0, text, at) as Generator<Read<Values<Parsers>>>;
}

/** What may be left out. */
export const maybe = <Value, Without>(parser: Parser<Value>, without: Without): Parser<Value | Without> =>
  either<Value | Without>(parser, (_, at) => [[without, at]]);

/** More things in a row than any rule may hold. */
const MOST = 300;

/** `a`, `a and b`, `a, b and c`. */
export function list<Value>(item: Parser<Value>, last: 'and' | 'or' = 'and'): Parser<Value[]> {
  const [comma, end] = [as(said`, ${item}`, ([value]) => value), word(` ${last} `, item)];
  function* more(values: Value[], text: string, at: number): Generator<Read<Value[]>> {
    if (values.length > MOST) return;
    for (const [value, next] of comma(text, at)) yield* more([...values, value], text, next);
    for (const [value, next] of end(text, at)) yield [[...values, value], next];
    if (values.length === 1) yield [values, at];
  }
  return function* (text, at) {
    for (const [value, next] of item(text, at)) yield* more([value], text, next);
  };
}

/** `a`, `a and b and c`, with the same word between all. */
export function joined<Value>(item: Parser<Value>, join: string): Parser<Value[]> {
  const next = word(join, item);
  function* more(values: Value[], text: string, at: number): Generator<Read<Value[]>> {
    if (values.length > MOST) return;
    for (const [value, end] of next(text, at)) yield* more([...values, value], text, end);
    yield [values, at];
  }
  return function* (text, at) {
    for (const [value, end] of item(text, at)) yield* more([value], text, end);
  };
}

const word =
  <Value>(before: string, parser: Parser<Value>): Parser<Value> =>
  (text, at) =>
    text.startsWith(before, at) ? parser(text, at + before.length) : [];

/** The first way in which the whole text can be read. */
export function readWhole<Value>(parser: Parser<Value>, text: string): Value | undefined {
  for (const [value, end] of parser(text, 0)) if (end === text.length) return value;
  return undefined;
}

export const number: Parser<number> = found(/-?\d+(?:\.\d+)?(?:e[+-]?\d+)?/, Number);

/** `1 second`, `2 seconds`. */
export const quantityOf =
  (singular: string): Parser<number> =>
  (text, at) =>
    (function* () {
      for (const [count, end] of number(text, at)) {
        const unit = ` ${singular}${count === 1 ? '' : 's'}`;
        if (text.startsWith(unit, end)) yield [count, end + unit.length] as const;
      }
    })();

/** Somebody's own words, out of their quotation marks. */
export const ownWords: Parser<string> = found(/“(?:[^“”\\]|\\[“”\\])*”/, (match) =>
  match.slice(1, -1).replace(/\\([“”\\])/g, '$1'),
);
