import { fontSchema } from '@velarium/contract';
import { familiesOf, fontStack, GENERIC, nearestFont, plainFamily } from './letters.ts';

/** Letters of a value that are looked at. */
const MOST = 600;

/**
 * What a page sets its words in, by a `font` or a `font-family` of its sheets: its own families where it names any, else the kind
 * they are of. Nothing where the value names none.
 */
export function fontOfPage(said: string): string | undefined {
  // No sheet that means well says more.
  const value = said.slice(0, MOST);
  if (!/[a-z]{3}/i.test(value) || /\b(inherit|initial|unset|revert)\b/i.test(value)) return undefined;
  // Of a whole `font` the families are what follows its size.
  const [, behindSize] =
    /(?:^|\s)[\d.]+(?:px|rem|em|%|pt|vw)(?:\s*\/\s*[^\s"',]+)?\s*(.+)$/.exec(value) ?? [];
  const families = familiesOf(behindSize ?? value).map((one) => {
    const name = plainFamily(one);
    return /^-?[A-Za-z][\w-]*$/.test(name) ? name : `"${name}"`;
  });
  const kind = nearestFont(value);
  // Where none of them is there, at least the kind is right.
  const stack = [...families, ...(families.some((one) => GENERIC.test(one)) ? [] : [fontStack(kind)])].join(
    ', ',
  );
  return families[0] !== undefined && !GENERIC.test(families[0]) && fontSchema.safeParse(stack).success
    ? stack
    : kind;
}
