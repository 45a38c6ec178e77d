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

const withOwn = (options: Option[], code: string): Option[] =>
  options.some(({ value }) => value === code) ? options : [...options, { value: code, label: code }];

export function countryOptions(chosen: string): Option[] {
  countries ??= [...named('region', COUNTRIES), { value: 'unknown', label: 'Not known' }];
  return withOwn(countries, chosen);
}
export function languageOptions(chosen: string): Option[] {
  languages ??= named('language', LANGUAGES);
  return withOwn(languages, chosen);
}
