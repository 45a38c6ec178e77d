import type { CampaignDocument, Cap, Device, Moment, PageRule, Rule, Trigger } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';

/** What a site calls its pages, for wishes that speak of them. */
export interface PageNames {
  readonly pages: readonly { readonly path: string; readonly title: string }[];
  readonly groups: readonly { readonly id: string; readonly name: string }[];
  readonly kinds: readonly string[];
}

export interface Wishes {
  /** What the wishes make of a campaign; the same one where nothing was understood. */
  readonly apply: (document: CampaignDocument) => CampaignDocument;
  readonly isUnderstood: boolean;
  /** What was typed and not understood, piece by piece. */
  readonly rest: readonly string[];
}

/** More than anybody types into a palette. */
const MOST_LETTERS = 400;

type Change = (document: CampaignDocument) => CampaignDocument;

const onRule =
  (change: (rule: Rule) => Rule): Change =>
  (document) => ({ ...document, rule: change(document.rule) });
const onMoment = (change: (moment: Moment) => Moment): Change =>
  onRule((rule) => ({ ...rule, moment: change(rule.moment) }));

const SECONDS: Readonly<Record<string, number>> = {
  s: 1,
  sec: 1,
  second: 1,
  min: 60,
  minute: 60,
  hour: 3600,
};
const secondsOf = (count: string, unit: string): number =>
  Math.min(3600, Number(count) * (SECONDS[unit.toLowerCase().replace(/s$/, '') || 's'] ?? 1));

const DEVICE_NAMES: readonly [RegExp, Device][] = [
  [/\b(phones?|mobiles?)\b/i, 'mobile'],
  [/\btablets?\b/i, 'tablet'],
  [/\b(desktops?|laptops?|computers?)\b/i, 'desktop'],
];
const devicesIn = (words: string): Device[] =>
  DEVICE_NAMES.flatMap(([name, device]) => (name.test(words) ? device : []));

const setDevices = (devices: readonly Device[]): Change =>
  onRule((rule) => ({
    ...rule,
    reach: { ...rule.reach, devices: DEVICES.filter((one) => devices.includes(one)) },
  }));
const setCap = (caps: Cap[]): Change => onRule((rule) => ({ ...rule, limits: { ...rule.limits, caps } }));

const UNITS = { day: 'days', week: 'weeks', month: 'months', hour: 'hours' } as const;
const spanCap = (count: number, unit: string, max = 1): Cap[] => [
  { max, per: { count, unit: UNITS[unit.toLowerCase().replace(/s$/, '') as keyof typeof UNITS] } },
];

/** A wish about the moment takes the place of triggers of its kind, and of what a new campaign began with. */
interface Reading {
  readonly triggers: Trigger[];
  readonly changes: Change[];
  readonly include: PageRule[];
  readonly exclude: PageRule[];
}

/** The pages somebody means by a word: a group, a kind, a folder or a page, in this order. */
function pagesMeant(words: string, { pages, groups, kinds }: PageNames): PageRule[] {
  const typed = words.trim();
  if (typed.startsWith('/'))
    return /\s/.test(typed)
      ? []
      : [{ kind: typed.endsWith('/') && typed !== '/' ? 'begins' : 'exact', address: typed }];
  const wanted = typed
    .toLowerCase()
    .replace(/^(the|all|every|pages? of|everything under)\s+/, '')
    .replace(/\s+pages?$/, '');
  if (wanted === '') return [];
  const group = groups.find(({ name }) => name.toLowerCase() === wanted);
  if (group) return [{ kind: 'group', id: group.id }];
  const single = wanted.replace(/s$/, '');
  const kind = kinds.find((one) => one.toLowerCase() === wanted || one.toLowerCase() === single);
  if (kind !== undefined) return [{ kind: 'pageKind', name: kind }];
  const page = pages.find(({ title }) => title.toLowerCase() === wanted);
  if (page) return [{ kind: 'exact', address: page.path }];
  const folder = `/${wanted.replaceAll(' ', '-')}/`;
  if (pages.filter(({ path }) => path.startsWith(folder)).length > 0)
    return [{ kind: 'begins', address: folder }];
  const parts = pages.filter(({ title }) => title.toLowerCase().includes(wanted));
  return parts.length === 1 && parts[0] ? [{ kind: 'exact', address: parts[0].path }] : [];
}

/** Ways of saying a thing, the more particular first. Each takes one piece of what was typed. */
const WAYS: readonly [RegExp, (found: RegExpExecArray, reading: Reading, names: PageNames) => boolean][] = [
  [
    /^(?:after )?(\d+(?:\.\d)?) ?(s|sec|secs|seconds?|min|mins|minutes?) of (?:stillness|inactivity)$/i,
    ([, count = '', unit = ''], { triggers }) =>
      triggers.push({ kind: 'inactivity', seconds: Math.max(1, secondsOf(count, unit)) }) > 0,
  ],
  [
    /^(?:it )?closes? (?:by itself )?after (\d+) ?(s|sec|secs|seconds?|min|mins|minutes?)$/i,
    ([, count = '', unit = ''], { changes }) => {
      const afterSeconds = Math.max(2, Math.round(secondsOf(count, unit)));
      return (
        changes.push(({ message, ...rest }) => ({
          ...rest,
          message: { ...message, close: { ...message.close, afterSeconds } },
        })) > 0
      );
    },
  ],
  [
    /^(?:not )?before (\d+(?:\.\d)?) ?(s|sec|secs|seconds?|min|mins|minutes?)$/i,
    ([, count = '', unit = ''], { changes }) =>
      changes.push(onMoment((moment) => ({ ...moment, notBeforeSeconds: secondsOf(count, unit) }))) > 0,
  ],
  [
    /^(?:after )?(\d+(?:\.\d)?) ?(s|sec|secs|seconds?|min|mins|minutes?)$/i,
    ([, count = '', unit = ''], { triggers }) =>
      triggers.push({ kind: 'time', seconds: secondsOf(count, unit) }) > 0,
  ],
  [
    /^(?:at once|immediately|right away)$/i,
    (_, { triggers }) => triggers.push({ kind: 'time', seconds: 0 }) > 0,
  ],
  [
    /^(?:after |at )?(\d{1,3}) ?(?:%|per ?cent)(?: of the page| scrolled| down)?$/i,
    ([, amount = ''], { triggers }) =>
      triggers.push({ kind: 'scroll', unit: 'percent', amount: Math.min(100, Number(amount)) }) > 0,
  ],
  [
    /^(?:on |when )?(?:leaving|exit|exit intent|they leave)$/i,
    (_, { triggers }) => triggers.push({ kind: 'exitMouse', certainty: 'likely' }) > 0,
  ],
  [/^at the end(?: of the article)?$/i, (_, { triggers }) => triggers.push({ kind: 'articleEnd' }) > 0],
  [
    /^(?:any|whichever is first|the first of them)$/i,
    (_, { changes }) => changes.push(onMoment((moment) => ({ ...moment, join: 'any' }))) > 0,
  ],
  [
    /^(?:all of them|all together|both)$/i,
    (_, { changes }) => changes.push(onMoment((moment) => ({ ...moment, join: 'all' }))) > 0,
  ],
  [/^(?:on )?(?:every|all|any) devices?$/i, (_, { changes }) => changes.push(setDevices(DEVICES)) > 0],
  [
    /^not on ([a-z ]+)$/i,
    ([, words = ''], { changes }) => {
      const devices = devicesIn(words);
      if (devices.length === 0) return false;
      return (
        changes.push((document) =>
          setDevices(document.rule.reach.devices.filter((one) => !devices.includes(one)))(document),
        ) > 0
      );
    },
  ],
  [
    /^(?:only )?on ([a-z ]+?)(?: only)?$/i,
    ([, words = ''], { changes }) => {
      const devices = devicesIn(words);
      return devices.length > 0 && changes.push(setDevices(devices)) > 0;
    },
  ],
  [/^once per session$/i, (_, { changes }) => changes.push(setCap([{ max: 1, per: 'session' }])) > 0],
  [
    /^once(?: per visitor| ever| only)?$/i,
    (_, { changes }) => changes.push(setCap([{ max: 1, per: 'ever' }])) > 0,
  ],
  [
    /^once (?:a|per|every|each) (hour|day|week|month)$/i,
    ([, unit = ''], { changes }) => changes.push(setCap(spanCap(1, unit))) > 0,
  ],
  [
    /^once every (\d{1,3}) (hours|days|weeks|months)$/i,
    ([, count = '', unit = ''], { changes }) =>
      changes.push(setCap(spanCap(Math.max(1, Number(count)), unit))) > 0,
  ],
  [
    /^(?:at most )?(\d{1,2}) times (?:a|per) (hour|day|week|month)$/i,
    ([, max = '', unit = ''], { changes }) =>
      changes.push(setCap(spanCap(1, unit, Math.max(1, Number(max))))) > 0,
  ],
  [/^(?:every time|always)$/i, (_, { changes }) => changes.push(setCap([])) > 0],
  [/^(?:on )?(?:everywhere|every page|all pages)$/i, (_, { include }) => include.push({ kind: 'every' }) > 0],
  [
    /^(?:not|never) on (.+)$/i,
    ([, words = ''], { exclude }, names) => {
      const meant = pagesMeant(words, names);
      exclude.push(...meant);
      return meant.length > 0;
    },
  ],
  [
    /^(?:only )?on (.+)$/i,
    ([, words = ''], { include }, names) => {
      const meant = pagesMeant(words, names);
      include.push(...meant);
      return meant.length > 0;
    },
  ],
];

/**
 * Reads wishes as people type them: `after 20 seconds on journal, not on phones, once a week`. Pieces are told apart by
 * commas, "and", "or" and the words that begin a new one.
 */
export function readWishes(text: string, names: PageNames): Wishes {
  const pieces = text
    .slice(0, MOST_LETTERS)
    .split(
      /[,;.]\s+|,|\s+(?:and|or|then)\s+|\s+(?=everywhere\b)|\s+(?=(?:only on|not on|never on|not before|on|once|every|after|at most|at once|at the end|closes?)\b)(?<!\b(?:only|not|never|closes?|itself|and|or|on|at|once|each|times|of) )/i,
    )
    .map((piece) =>
      piece
        .trim()
        .replace(/\s+/g, ' ')
        .replace(/^(?:and|or|then) /i, ''),
    )
    .filter(Boolean);
  const reading: Reading = { triggers: [], changes: [], include: [], exclude: [] };
  const rest = pieces.filter((piece) => {
    for (const [way, read] of WAYS) {
      const found = way.exec(piece);
      if (found && read(found, reading, names)) return false;
    }
    return true;
  });
  const { triggers, changes, include, exclude } = reading;
  if (triggers.length > 0)
    changes.push(onMoment((moment) => ({ ...moment, triggers: triggers.slice(0, 12) })));
  if (include.length > 0 || exclude.length > 0) {
    changes.push(
      onRule((rule) => ({
        ...rule,
        reach: {
          ...rule.reach,
          pages: {
            ...rule.reach.pages,
            ...(include.length > 0 ? { include } : {}),
            exclude: exclude.length > 0 ? exclude : include.length > 0 ? [] : rule.reach.pages.exclude,
          },
        },
      })),
    );
  }
  return {
    apply: (document) => changes.reduce((old, change) => change(old), document),
    isUnderstood: changes.length > 0,
    rest,
  };
}
