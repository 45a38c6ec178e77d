import type { Style, Styled } from '@velarium/contract';
import { COLOUR_ROLES } from '@velarium/contract/values';
import type { SiteWords } from './reading.ts';

export type Scope = keyof Styled;

/** Ways of beginning a change, and of saying what becomes of a thing. */
export const MAKE = '(?:make |let |set |turn )?';
export const BE = '(?: (?:be|is|to|in|becomes?|should be|=|:)|:)*';

export const ON_DEVICE = '(?: (?:on|for) (?:an? |the )?(phones?|mobiles?|tablets?))?';
export const scopeOf = (said: string | undefined): Scope =>
  said === undefined ? 'all' : /^t/i.test(said) ? 'tablet' : 'mobile';
/** A device, as what changed tells of it. */
export const SCOPE_SAID: Readonly<Record<Scope, string>> = {
  all: '',
  tablet: ', on tablets',
  mobile: ', on phones',
};

export const withStyle = (styled: Styled, scope: Scope, style: Style): Styled => ({
  ...styled,
  [scope]: { ...styled[scope], ...style },
});

export const ALIGNED: Readonly<Record<string, Style['align']>> = {
  left: 'start',
  centred: 'center',
  centered: 'center',
  'in the middle': 'center',
  'in the centre': 'center',
  right: 'end',
};

const ROLE_NAMES: Readonly<Record<string, (typeof COLOUR_ROLES)[number]>> = {
  'the accent': 'accent',
  'the accent colour': 'accent',
  'accent colour': 'accent',
  'the text colour': 'ink',
};
/** A colour as a role of the Look, or as people write one: `dark green`, `#0a4`, `light grey`. */
export function colourMeant(said: string, { colour }: SiteWords['design']): string | undefined {
  const role = ROLE_NAMES[said] ?? COLOUR_ROLES.find((one) => one === said);
  // CSS writes its names as one word.
  return role ?? colour(said) ?? colour(said.replaceAll(/[ -]/g, ''));
}
export const COLOUR = '((?:the )?[a-z# -]*[#a-z0-9][a-z0-9(),.% -]*)';
