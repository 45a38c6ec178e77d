import type { CampaignDocument, LookStyle, Message, PageRule } from '@velarium/contract';
import { languageName } from '../languages/direction.ts';
import { languageFindings } from '../languages/language-findings.ts';
import { languagesOf } from '../languages/translate.ts';
import { isInterrupting } from '../message/placement.ts';
import { type SavedBlocks, withSavedBlocks } from '../message/saved.ts';
import { compileRegex, PatternError } from '../patterns/compile.ts';
import { cutOffFindings, type MeasuredStep } from './cut-off.ts';
import { designFindings } from './design.ts';
import type { DesignFinding, Finding } from './finding.ts';
import { inTheWay, type Met } from './in-the-way.ts';
import { neverFindings, scheduleFindings } from './never.ts';

/** What a campaign is launched into. */
export interface LaunchedInto {
  readonly lookOf: (message: Pick<Message, 'look'>) => LookStyle;
  readonly savedOf: SavedBlocks;
  /** What runs on the site, and what is launched together with it. */
  readonly running: readonly Met[];
  /** The site's. */
  readonly zone: string;
  readonly nowMs: number;
}

/** Every message a campaign can show: its own, then those of its variants. */
export const messagesOf = ({
  message,
  variants,
}: Pick<CampaignDocument, 'message' | 'variants'>): Message[] => [
  message,
  ...variants.map((variant) => variant.message),
];

/** A message in one of its languages; `undefined` where it says nothing of languages. */
interface DrawnMessage {
  readonly message: Message;
  readonly language: string | undefined;
  /** Which one it is, before what is said of it; empty for the first one as it was written. */
  readonly name: string;
}

/** Every message a campaign can show, in each of its languages. */
export const drawnMessages = (document: Pick<CampaignDocument, 'message' | 'variants'>): DrawnMessage[] =>
  messagesOf(document).flatMap((message, n) => {
    const [original, ...others] = languagesOf(message);
    const variant = n === 0 ? [] : [`Variant ${n + 1}`];
    return [
      { message, language: original, name: variant.join('') },
      ...others.map((language) => ({
        message,
        language,
        name: [...variant, `In ${languageName(language)}`].join(', '),
      })),
    ];
  });

/** What counts before a launch of the findings of a message. */
const seriousIn = (findings: readonly DesignFinding[], name: string): Finding[] =>
  findings.flatMap(({ severity, code, text }) =>
    severity === 'hint' ? [] : [{ severity, code, part: 'message', text: name ? `${name}: ${text}` : text }],
  );

/** What nobody would see without scrolling, in each of {@link drawnMessages}, as they were measured. */
export const measuredFindings = (
  document: CampaignDocument,
  measured: readonly (readonly MeasuredStep[])[],
): Finding[] =>
  drawnMessages(document).flatMap(({ message, name }, n) =>
    seriousIn(cutOffFindings(message, measured[n] ?? []), name),
  );

/** Every check before a launch that needs no look at the site's pages, most serious first. */
export function launchFindings(
  launched: Met,
  { lookOf, savedOf, running, zone, nowMs }: LaunchedInto,
): Finding[] {
  const { document } = launched;
  const whole = (message: Message) => withSavedBlocks(message, savedOf);
  const drawn = {
    ...document,
    message: whole(document.message),
    variants: document.variants.map((one) => ({ ...one, message: whole(one.message) })),
  };
  return [
    ...scheduleFindings(document.rule, nowMs, zone),
    ...documentFindings(drawn, lookOf),
    ...inTheWay(launched, running),
  ].sort(moreSerious);
}

const moreSerious = (a: Finding, b: Finding): number =>
  Number(a.severity === 'warn') - Number(b.severity === 'warn');

/** What can be said of a document by itself, most serious first. An empty list means nothing was found. */
export function documentFindings(
  { message, rule, variants }: CampaignDocument,
  lookOf: LaunchedInto['lookOf'],
): Finding[] {
  const findings: Finding[] = [];
  const add = (severity: Finding['severity'], code: string, part: Finding['part'], text: string) =>
    findings.push({ severity, code, part, text });

  const { include, exclude, follows } = rule.reach.pages;
  if ((include.length === 0 && follows === null) || exclude.some((page) => page.kind === 'every')) {
    add('stop', 'pages.nowhere', 'pages', 'It would open on no page. Choose at least one page under Reach.');
  }
  if (rule.reach.devices.length === 0) {
    add('stop', 'devices.none', 'devices', 'It would open on no device. Choose at least one under Reach.');
  }
  for (const page of [...include, ...exclude]) {
    const reason = patternFault(page);
    if (reason)
      add('stop', 'pages.pattern', 'pages', `The pattern “${reason.pattern}” cannot be used: ${reason.why}.`);
  }
  for (const [n, one] of messagesOf({ message, variants }).entries())
    findings.push(
      ...seriousIn(
        [
          ...designFindings({ message: one, look: lookOf(one), devices: rule.reach.devices }),
          ...languageFindings(one),
        ],
        n === 0 ? '' : `Variant ${n + 1}`,
      ),
    );
  findings.push(...neverFindings(rule));
  if (isInterrupting(message.format) && rule.reach.devices.includes('mobile')) {
    add(
      'warn',
      'devices.interrupting',
      'devices',
      'It interrupts phone visitors. Search engines mark down pages that do; a fly-in or a bar does not.',
    );
  }
  return findings.sort(moreSerious);
}

/** Why a regular expression cannot be used, if it cannot. Asked when a draft is saved, too. */
export function patternFault(page: PageRule): { pattern: string; why: string } | undefined {
  if (page.kind !== 'regex') return undefined;
  try {
    compileRegex(page.pattern);
    return undefined;
  } catch (error) {
    return { pattern: page.pattern, why: error instanceof PatternError ? error.message : String(error) };
  }
}
