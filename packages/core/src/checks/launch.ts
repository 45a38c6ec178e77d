import type { Block, CampaignDocument, PageRule } from '@velarium/contract';
import { isInterrupting } from '../message/placement.ts';
import { compileRegex, PatternError } from '../patterns/compile.ts';
import type { SentencePart } from '../sentence/rule-sentence.ts';
import { contrastRatio, LEAST_TEXT_CONTRAST } from './contrast.ts';

export interface Finding {
  readonly code: string;
  /** `stop` forbids publishing; `warn` is worth a look. */
  readonly severity: 'stop' | 'warn';
  /** What is wrong and how to mend it. */
  readonly text: string;
  /** Where it is mended. */
  readonly part: SentencePart | 'message';
}

/** The checks before publishing, most serious first. An empty list means nothing was found. */
export function launchFindings({ message, rule }: CampaignDocument): Finding[] {
  const findings: Finding[] = [];
  const add = (severity: Finding['severity'], code: string, part: Finding['part'], text: string) =>
    findings.push({ severity, code, part, text });

  const { include, exclude } = rule.reach.pages;
  if (include.length === 0 || exclude.some((page) => page.kind === 'every')) {
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
  const blocks = message.steps.flatMap((step) => step.blocks);
  if (!blocks.some(hasWords)) {
    add('stop', 'message.empty', 'message', 'The message says nothing. Write a heading or a text.');
  }
  for (const block of blocks) {
    if (block.kind === 'form' && block.consentText.trim() === '') {
      add(
        'warn',
        'form.consent',
        'message',
        'The form asks for no consent. Write the words people agree to.',
      );
    }
    if (block.kind === 'button' && block.label.trim() === '') {
      add('stop', 'button.label', 'message', 'A button has no words. Write what it does.');
    }
    if (block.kind === 'button' && block.action.kind === 'link' && block.action.address === '') {
      add(
        'warn',
        'button.address',
        'message',
        `“${block.label}” has no address, so it only closes the message.`,
      );
    }
  }
  contrastFinding(message.palette.ink, message.palette.surface, 'The text');
  contrastFinding(message.palette.onAccent, message.palette.accent, 'The words on buttons');
  if (isInterrupting(message.format) && rule.reach.devices.includes('mobile')) {
    add(
      'warn',
      'devices.interrupting',
      'devices',
      'It interrupts phone visitors. Search engines mark down pages that do; a fly-in or a bar does not.',
    );
  }
  return findings.sort((a, b) => Number(a.severity === 'warn') - Number(b.severity === 'warn'));

  function contrastFinding(ink: string, ground: string, what: string) {
    const ratio = contrastRatio(ink, ground);
    if (ratio >= LEAST_TEXT_CONTRAST) return;
    add(
      'warn',
      'contrast',
      'message',
      `${what} has a contrast of ${ratio.toFixed(1)}; ${LEAST_TEXT_CONTRAST} is the least people can read well.`,
    );
  }
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

function hasWords(block: Block): boolean {
  switch (block.kind) {
    case 'heading':
      return block.text.trim() !== '';
    case 'text':
      return block.content.some((paragraph) => paragraph.some((span) => span.text.trim() !== ''));
    case 'button':
      return block.label.trim() !== '';
    case 'form':
      return true;
  }
}
