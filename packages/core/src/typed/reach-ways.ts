import type { Device, PageRule } from '@velarium/contract';
import { pageRuleSchema } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import { typedPage } from '../pages/typed-page.ts';
import { readWhole } from '../sentence/parsers.ts';
import { pageSaid } from '../sentence/read-reach.ts';
import { NAMED_PLACES, WHO_NOT_WAYS, WHO_WAYS } from './audience-ways.ts';
import { only } from './numbers.ts';
import { type Answer, idsOf, type Reading, type SiteWords, type Way } from './reading.ts';

const DEVICE_NAMES: readonly [RegExp, Device][] = [
  [/^(?:mobile |smart)?(?:phones?|mobiles?)$|^mobile devices?$/i, 'mobile'],
  [/^tablets?$/i, 'tablet'],
  [/^(?:desktops?|laptops?|computers?|desktop computers?|pcs?)$/i, 'desktop'],
];
const deviceNamed = (name: string): Device | undefined =>
  DEVICE_NAMES.find(([names]) => names.test(name))?.[1];
const DEVICE =
  '((?:mobile |smart)?phones?|mobiles?|mobile devices?|tablets?|desktops?|laptops?|computers?|desktop computers?|pcs?)';

const HOME = /^(?:(?:home|front|start|landing)(?: ?page)?|first page of the site)$/;

const lowered = new WeakMap<SiteWords['pages'], readonly string[]>();
/** Titles in small letters, page by page; made once for a list. */
function titlesOf(pages: SiteWords['pages']): readonly string[] {
  const made = lowered.get(pages) ?? pages.map(({ title }) => title.toLowerCase());
  lowered.set(pages, made);
  return made;
}

/** The pages somebody means by a word: as the sentence says them, a group, a kind, a folder or a page, in this order. */
function pagesMeant(typed: string, words: SiteWords, isExact = false): PageRule[] {
  const { pages, groups, kinds } = words;
  const told = readWhole(pageSaid(idsOf(words)), typed);
  // An address is read as somebody types it: a star or a last slash means something.
  if (told && told.kind !== 'exact') return pageRuleSchema.safeParse(told).success ? [told] : [];
  if (/^(\/|https?:)/.test(typed)) return [typedPage(typed)].filter((rule) => rule !== undefined);
  const under = /^(?:(?:any|all|every) )?pages? under (\/[^\s*?#]*[^\s*?#/])$/i.exec(typed)?.[1];
  if (under !== undefined) return pagesMeant(`${under}/`, words);
  const wanted = typed
    .toLowerCase()
    .replace(/^(?:on |in |under )/, '')
    .replace(
      /^(?:the pages? (?:of|under|in)|(?:any |all |every )?pages? (?:of|under|in)(?: the (?:group|kind))?|(?:the )?pages? (?:called|named|titled)|every(?:thing)?(?: page)? (?:under|in)|the|all|every|any|whole|entire)\s+(?:the\s+)?(?:whole\s+|entire\s+)?/,
      '',
    )
    .replace(/\s+(?:pages?|section|area|articles?|posts?)$/, '');
  if (wanted === '') return [];
  if (/^(?:\/|https?:)/.test(wanted)) return pagesMeant(wanted, words);
  const group = groups.find(({ name }) => name.toLowerCase() === wanted);
  if (group) return [{ kind: 'group', id: group.id }];
  const single = wanted.replace(/s$/, '');
  const kind = kinds.find((one) => one.toLowerCase() === wanted || one.toLowerCase() === single);
  if (kind !== undefined) return [{ kind: 'pageKind', name: kind }];
  const titles = titlesOf(pages);
  const page = pages[titles.indexOf(wanted)];
  if (page) return [{ kind: 'exact', address: page.path }];
  if (HOME.test(wanted)) return [{ kind: 'exact', address: '/' }];
  const path = `/${wanted.replaceAll(' ', '-')}`;
  const folder = [path, `${path}s`].find((one) => pages.some((page) => page.path.startsWith(`${one}/`)));
  if (folder !== undefined) return [{ kind: 'begins', address: `${folder}/` }];
  if (pages.some((one) => one.path === path)) return [{ kind: 'exact', address: path }];
  if (isExact) return [];
  // Two letters stand in many a title, and mean something else: “the US”.
  const parts = wanted.length > 2 ? pages.filter((_, n) => titles[n]?.includes(wanted)) : [];
  return parts.length === 1 && parts[0] ? [{ kind: 'exact', address: parts[0].path }] : [];
}

/** Takes the pages meant into a list; a name the site has not is nothing. */
function take(list: PageRule[], typed: string, words: SiteWords): Answer {
  const meant = pagesMeant(typed, words);
  list.push(...meant);
  return meant.length > 0;
}
/** What lies under an address is a folder's; on an address is that page. */
const inside = (where: string | undefined, typed: string): string =>
  where?.toLowerCase() === 'under' ? `pages under ${typed}` : typed;
const EVERYWHERE =
  '(?:on |across )?(?:everywhere|anywhere|all(?=,? (?:but|except|apart|other))|(?:every|each|any) page|all (?:the )?pages|(?:the )?(?:whole|entire) site)(?: (?:on|of|across) (?:the|this|our) site)?';
const BUT = '(?:but(?: not)?|except(?: for)?|apart from|other than|save|without|not|never)(?: on| in)?';

/** A rule by what stands in an address, or on the page. */
const byContent: readonly Way[] = [
  [
    only(
      '(?:only )?(?:on |where |when |if )?(?:pages |addresses |the address |the page )?(?:that |which |whose address )?(?:begin(?:s|ning)?|start(?:s|ing)?) (?:with|in) [“"]?(/[^\\s”"]*)[”"]?',
    ),
    ([, address = ''], { include }) => add(include, { kind: 'begins', address }),
  ],
  [
    only(
      '(?:only )?(?:on |where |when |if )?(?:pages |addresses |the address |the page )?(?:that |which |whose address )?end(?:s|ing)? (?:with|in|on) [“"]?([^\\s”"]+)[”"]?',
    ),
    ([, ending = ''], { include }) =>
      add(include, { kind: 'regex', pattern: `${ending.replaceAll(/[.*+?^${}()|[\]\\]/g, '\\$&')}$` }),
  ],
  [
    only(
      '(?:on |when |if |where )?(?:the )?address(?:es)? (?:contain(?:s|ing)?|has|have|with|includ(?:es?|ing)) \\?([\\w.-]+)(?:=([^\\s]+))?',
    ),
    ([, name = '', value], { include }) => add(include, { kind: 'parameter', name, value: value ?? null }),
  ],
  [
    only(
      '(?:only )?(?:on |where |when |if )?(?:pages |addresses |the address )?(?:that |which )?(?:with|contain(?:s|ing)?|includ(?:es?|ing)) (?:the words? )?(?:“([^”]+)”|"([^"]+)"|([\\w/-]+)) in (?:the|their) address|(?:only )?(?:on |where |when |if )?(?:pages (?:whose|where the) address|pages|addresses|the address) (?:that |which )?(?:contain(?:s|ing)?|includ(?:es?|ing)) (?:“([^”]+)”|"([^"]+)"|([\\w/-]+))',
    ),
    ([, ...texts], { include }) => add(include, { kind: 'contains', text: texts.find(Boolean) ?? '' }),
  ],
  [
    only('(?:only )?(?:on )?pages (?:whose|where the) (?:title|heading|name) .+'),
    () => 'say what their addresses have in common, or what they hold',
  ],
  [
    only('(?:only )?(?:on )?(?:pages |addresses )?with (?:the parameter )?\\?([\\w.-]+)(?:=([^\\s]+))?'),
    ([, name = '', value], { include }) => add(include, { kind: 'parameter', name, value: value ?? null }),
  ],
  [
    only(
      '(?:only )?(?:on )?pages (?:with|that have|that hold|having) (?:an? |the )?(?:element )?(“[^”]+”|"[^"]+"|[.#[][^\\s]+)(?: element)?',
    ),
    ([, selector = ''], { include }) =>
      add(include, { kind: 'holds', selector: selector.replace(/^[“"]|[”"]$/g, '') }),
  ],
];
const add = (list: PageRule[], rule: PageRule): Answer =>
  pageRuleSchema.safeParse(rule).success ? list.push(rule) > 0 : 'out of range';

const onDevice = (reading: Reading, name: string, isNot: boolean): Answer => {
  const device = deviceNamed(name);
  if (!device) return false;
  (isNot ? reading.withoutDevices : reading.devices).push(device);
  return true;
};

/** Ways of saying where, and for whom. */
export const REACH_WAYS: readonly Way[] = [
  [
    only('(?:on |for )?(?:every|all|any) devices?'),
    (_, { devices }) => {
      devices.push(...DEVICES);
      return true;
    },
  ],
  [
    only(`(?:on |for )?(?:(?:every|all|any)(?: devices?)?|everything|anything) ${BUT} ${DEVICE}`),
    ([, name = ''], reading) => {
      reading.devices.push(...DEVICES);
      return onDevice(reading, name, true);
    },
  ],
  [
    only(`(not |never |no |without |(?:but )?not |except )(?:on |for )?(?:an? |the )?${DEVICE}`),
    ([, , name = ''], reading) => onDevice(reading, name, true),
  ],
  [
    only(`${DEVICE} (?:are |is )?(?:excluded|left out|excepted)`),
    ([, name = ''], reading) => onDevice(reading, name, true),
  ],
  [
    only(`(?:only |just )?(?:on |for |to )?(?:an? |the )?${DEVICE}(?: users| visitors)?(?: only| alone)?`),
    ([, name = ''], reading) => onDevice(reading, name, false),
  ],
  [
    only(
      '(?:only )?(?:on |for )?(?:large|big|small|wide|narrow|mobile) (?:screens?|windows?|displays?)(?: only)?',
    ),
    () => 'say desktops, tablets or phones',
  ],
  [
    only(
      '(?:only )?(?:on |in )?(/[^\\s*?#]*[^\\s*?#/])/? and (?:all (?:of )?|everything )?(?:(?:its|the) )?(?:sub-?pages|pages (?:under|below|beneath)(?: it)?|(?:under|below|beneath)(?: it)?)',
    ),
    ([, address = ''], { include }) =>
      include.push({ kind: 'exact', address }, { kind: 'begins', address: `${address}/` }) > 0,
  ],
  [only(EVERYWHERE), (_, { include }) => include.push({ kind: 'every' }) > 0],
  [
    only(`${EVERYWHERE},? ${BUT} (.+)`),
    ([, typed = ''], { include, exclude }, words) => {
      const answer = take(exclude, typed, words);
      if (answer === true) include.push({ kind: 'every' });
      return answer;
    },
  ],
  ...byContent,
  ...WHO_WAYS,
  ...WHO_NOT_WAYS,
  [
    only(
      '(?:only )?(?:anywhere |somewhere |everywhere )?(on|in|under) (.+?),? (?:but not|except(?: for)?|apart from|other than)(?: (on|in|under))? (.+)',
    ),
    ([, where, typed = '', leftWhere, left = ''], { include, exclude }, words) => {
      const answer = take(include, inside(where, typed), words);
      return answer === true ? take(exclude, inside(leftWhere, left), words) : answer;
    },
  ],
  [
    only('(?:(?:but )?(?:not|never|nowhere|nothing) (on|in|under|at)|except(?: for)?|excluding) (.+)'),
    ([, where, typed = ''], { exclude }, words) => take(exclude, inside(where, typed), words),
  ],
  [
    only('(?:only |just )?(?:anywhere |somewhere |everywhere )?(on|in|under) (.+)'),
    ([, where, typed = ''], { include }, words) => take(include, inside(where, typed), words),
  ],
  [
    only('((?:all|every|any) .+|.+ pages)'),
    ([, typed = ''], { include }, words) => take(include, typed, words),
  ],
  // A country or a language may be called as a page is; the page goes first.
  ...NAMED_PLACES,
  // In shorthand, beside something else: “10 seconds, shop, no phones”.
  [
    only('(.+)'),
    ([, typed = ''], reading, words) => {
      const isBeside = reading.settings.size + reading.triggers.length + reading.devices.length > 0;
      const meant = isBeside ? pagesMeant(typed, words, true) : [];
      reading.include.push(...meant);
      return meant.length > 0;
    },
  ],
  [only('(?:only |just )(.+)'), ([, typed = ''], { include }, words) => take(include, typed, words)],
];
