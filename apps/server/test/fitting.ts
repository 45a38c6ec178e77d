import fc from 'fast-check';

/** A JSON Schema, as far as the API's own reference uses them (draft 2020-12). */
export interface Schema {
  readonly $ref?: string;
  readonly type?: string;
  readonly const?: unknown;
  readonly enum?: readonly unknown[];
  readonly anyOf?: readonly Schema[];
  readonly oneOf?: readonly Schema[];
  readonly allOf?: readonly Schema[];
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly required?: readonly string[];
  readonly additionalProperties?: Schema | boolean;
  readonly items?: Schema;
  readonly minItems?: number;
  readonly maxItems?: number;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly pattern?: string;
  readonly format?: string;
  readonly minLength?: number;
  readonly maxLength?: number;
}

const DEEPEST = 9;
/** Where no limit is said: whole numbers that JSON carries exactly. */
const WIDEST = Number.MAX_SAFE_INTEGER;

/** Texts that programs trip over. */
const oddText = fc.oneof(
  fc.string(),
  fc.string({ unit: 'grapheme', maxLength: 20 }),
  fc.constantFrom(
    '',
    ' ',
    '0',
    'null',
    '__proto__',
    'constructor',
    '2026-02-30',
    '9999-12-31',
    '//x<',
    '/\\',
    '%',
    '1e400',
    '\u202e',
    '\0',
    '\ud800',
    'a'.repeat(3000),
  ),
);
const plainText = fc.constantFrom('/about', 'https://fell.example', 'Europe/London', 'UTC', 'Words', 'x');
const OF_FORMAT: Readonly<Record<string, fc.Arbitrary<string>>> = {
  uuid: fc.uuid(),
  email: fc.emailAddress(),
  date: fc.constantFrom('2026-11-25', '2024-02-29', '0001-01-01', '9999-12-31', '2026-03-29'),
  'date-time': fc.constantFrom('2026-11-25T20:00:00Z', '9999-12-31T23:59:59Z', '0001-01-01T00:00:00Z'),
};

/** Made once of each pattern: making it costs more than all that is drawn from it. */
const ofPattern = new Map<string, fc.Arbitrary<string>>();
function matching(pattern: string): fc.Arbitrary<string> {
  const known = ofPattern.get(pattern);
  if (known) return known;
  let made: fc.Arbitrary<string>;
  try {
    made = fc.stringMatching(new RegExp(pattern));
  } catch {
    // One that looks ahead or behind is none the library can write by.
    made = plainText;
  }
  ofPattern.set(pattern, made);
  return made;
}

function textFitting({ format, pattern, minLength = 0, maxLength = 200 }: Schema): fc.Arbitrary<string> {
  const ofFormat = format === undefined ? undefined : OF_FORMAT[format];
  if (ofFormat) return ofFormat;
  if (pattern !== undefined) return fc.oneof({ weight: 8, arbitrary: matching(pattern) }, oddText);
  return fc
    .oneof({ weight: 2, arbitrary: plainText }, { weight: 3, arbitrary: oddText })
    .map((text) => text.slice(0, maxLength).padEnd(minLength, 'x'));
}

function numberFitting({ type, minimum = -WIDEST, maximum = WIDEST }: Schema): fc.Arbitrary<number> {
  const edges = [minimum, maximum, 0, 1, -1].filter((edge) => edge >= minimum && edge <= maximum);
  const within = { min: Math.max(minimum, -2e9), max: Math.min(maximum, 2e9) };
  return fc.oneof(
    fc.constantFrom(...edges),
    type === 'integer'
      ? fc.integer({ min: Math.ceil(within.min), max: Math.floor(within.max) })
      : fc.double({ ...within, noNaN: true }),
  );
}

/** Values that fit a schema, the odd ones among them: what a door takes or refuses, and never fails at. */
export function fitting(schema: Schema, root: object, depth = 0): fc.Arbitrary<unknown> {
  const within = (inner: Schema) => fitting(inner, root, depth + 1);
  if (schema.$ref !== undefined) {
    if (depth > DEEPEST) return fc.constant(null);
    const names = schema.$ref.split('/').slice(1);
    const found = names.reduce((at, name) => (at as Record<string, object>)[name] ?? {}, root);
    return fc.constant(null).chain(() => within(found));
  }
  if ('const' in schema) return fc.constant(schema.const);
  if (schema.enum) return fc.constantFrom(...schema.enum);
  const choices = schema.anyOf ?? schema.oneOf;
  if (choices) return fc.oneof(...(depth > DEEPEST ? choices.slice(-1) : choices).map(within));
  if (schema.allOf) return fc.tuple(...schema.allOf.map(within)).map((parts) => Object.assign({}, ...parts));
  switch (schema.type) {
    case 'object': {
      const { properties = {}, required = [], additionalProperties: more } = schema;
      const named = fc.record(
        Object.fromEntries(Object.entries(properties).map(([name, inner]) => [name, within(inner)])),
        { requiredKeys: [...required] },
      );
      if (typeof more !== 'object') return named;
      return fc
        .tuple(named, fc.dictionary(oddText, within(more), { maxKeys: 3 }))
        .map(([own, others]) => ({ ...others, ...own }));
    }
    case 'array': {
      const { items = {}, minItems = 0, maxItems = 4 } = schema;
      // Lists of lists of lists would be larger than any document is.
      const most = Math.max(minItems, Math.min(depth > DEEPEST ? 0 : depth > 2 ? 1 : 3, maxItems));
      return fc.array(within(items), { minLength: minItems, maxLength: most });
    }
    case 'integer':
    case 'number':
      return numberFitting(schema);
    case 'boolean':
      return fc.boolean();
    case 'null':
      return fc.constant(null);
    case 'string':
      return textFitting(schema);
    default:
      return fc.jsonValue({ maxDepth: 1 });
  }
}
