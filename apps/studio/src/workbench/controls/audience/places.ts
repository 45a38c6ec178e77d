import type { SeenValues } from '@velarium/contract';
import { figure } from '@velarium/core';

/** ISO 3166-1 countries and ISO 639-1 languages people of the trade ask for most; the browser knows their names. */
const COUNTRIES =
  'ad ae ar at au be bg br ca ch cl cn co cy cz de dk ee eg es fi fr gb gr hk hr hu id ie il in is it jp ke kr li lt lu lv ma mc mt mx my ng nl no nz pe ph pk pl pt ro rs sa se sg si sk th tr tw ua us vn za'.split(
    ' ',
  );
const LANGUAGES =
  'ar bg ca cs cy da de el en en-gb en-us es et eu fa fi fr fr-ca ga gd gl he hi hr hu id is it ja ko lt lv mt nb nl pl pt pt-br ro ru sk sl sr sv th tr uk vi zh'.split(
    ' ',
  );

const named = (type: 'region' | 'language', codes: readonly string[]) => {
  const names = new Intl.DisplayNames('en-GB', { type });
  return codes
    .map((value) => ({ value, label: names.of(type === 'region' ? value.toUpperCase() : value) ?? value }))
    .sort((a, b) => a.label.localeCompare(b.label));
};
type Option = { readonly value: string; readonly label: string };

let countries: Option[] | undefined;
let languages: Option[] | undefined;

type Seen = SeenValues['countries'];

/** Those that were seen first, the most frequent of them at the top, with how many visitors had them. */
function sorted(options: readonly Option[], chosen: string, seen: Seen = []): Option[] {
  const labels = new Map(options.map(({ value, label }) => [value, label]));
  if (!labels.has(chosen)) labels.set(chosen, chosen);
  const first = seen.filter(({ value }) => labels.has(value));
  const isFirst = new Set(first.map(({ value }) => value));
  return [
    ...first.map(({ value, visitors }) => ({
      value,
      label: `${labels.get(value)} · ${figure(visitors)}`,
    })),
    ...[...labels].filter(([value]) => !isFirst.has(value)).map(([value, label]) => ({ value, label })),
  ];
}

export function countryOptions(chosen: string, seen?: Seen): Option[] {
  countries ??= [...named('region', COUNTRIES), { value: 'unknown', label: 'Not known' }];
  return sorted(countries, chosen, seen);
}
export function languageOptions(chosen: string, seen?: Seen): Option[] {
  languages ??= named('language', LANGUAGES);
  return sorted(languages, chosen, seen);
}
