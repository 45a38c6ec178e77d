import type { CampaignDocument } from '@velarium/contract';
import { allBlocks, patternFault } from '@velarium/core';
import { ProblemError } from '../infra/problem.ts';

/** What a draft cannot hold, in words, and where. */
export const refused = (title: string, detail: string, path: string) =>
  new ProblemError(422, 'invalid-input', title, detail, [{ path, message: detail }]);

/** A regular expression that could hang a visitor's page never gets as far as a draft. */
export function assertPatterns({ rule, message, variants }: CampaignDocument): void {
  for (const block of [message, ...variants.map((one) => one.message)].flatMap(allBlocks)) {
    for (const { label, pattern } of block.kind === 'form' ? block.fields : []) {
      const fault = pattern ? patternFault({ kind: 'regex', pattern }) : undefined;
      if (fault)
        throw refused(
          'This pattern cannot be used',
          `The field “${label}”: ${fault.why}.`,
          'document.message',
        );
    }
  }
  for (const side of ['include', 'exclude'] as const) {
    rule.reach.pages[side].forEach((page, n) => {
      const fault = patternFault(page);
      if (!fault) return;
      const path = `document.rule.reach.pages.${side}.${n}.pattern`;
      throw new ProblemError(
        422,
        'invalid-input',
        'This pattern cannot be used',
        `“${fault.pattern}”: ${fault.why}.`,
        [{ path, message: fault.why }],
      );
    });
  }
}
