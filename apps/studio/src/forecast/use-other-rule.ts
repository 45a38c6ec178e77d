import { useQuery } from '@tanstack/react-query';
import type { Rule } from '@velarium/contract';
import { documentSentence, readWishes, sentenceText } from '@velarium/core';
import { useMemo } from 'react';
import { campaignQuery } from '../api/queries.ts';
import { castWithRuleQuery } from '../api/rehearsals.ts';
import { useNames } from '../board/use-names.ts';
import { useSiteWords } from '../site/use-site-words.ts';
import { readColour } from '../ui/colour-text.tsx';

export interface OtherRule {
  /** As the campaign's draft says it, and as it would with what was typed. */
  readonly sentence: string;
  readonly otherSentence: string;
  readonly rule: Rule;
  /** Whether it says something else than the draft. */
  readonly isOther: boolean;
  /** What was not understood, in the words it was typed in. */
  readonly rest: string;
}

/** Reads the design's part of wishes by nothing: it is the rule alone that is asked about. */
const TEXT_SIZE = 16;

/** What typed words make of a campaign's rule; nothing until the campaign is there. */
export function useOtherRule(
  siteId: string,
  campaignId: string | null,
  typed: string,
): OtherRule | undefined {
  const { data: campaign } = useQuery({ ...campaignQuery(campaignId ?? ''), enabled: campaignId !== null });
  const words = useSiteWords(siteId);
  const names = useNames(siteId);
  return useMemo(() => {
    if (!campaign || campaign.id !== campaignId) return undefined;
    const { document } = campaign;
    const { message, variants } = document;
    const design = { message, chosen: null, textSize: TEXT_SIZE, colour: readColour };
    const { apply, rest, designs } = readWishes(typed, {
      ...words,
      variants: variants.map(({ id }) => id),
      design,
    });
    const other = { ...document, rule: apply(document).rule };
    const [sentence, otherSentence] = [document, other].map((one) =>
      sentenceText(documentSentence(one, names)),
    );
    return {
      sentence: sentence ?? '',
      otherSentence: otherSentence ?? '',
      rule: other.rule,
      isOther: sentence !== otherSentence,
      rest: [...rest, ...designs].join(', '),
    };
  }, [campaign, campaignId, typed, words, names]);
}

/** The site with a campaign under another rule; nothing where there is none. */
export const useOtherCast = (siteId: string, campaignId: string | null, other: OtherRule | undefined) =>
  useQuery({
    ...castWithRuleQuery(siteId, campaignId ?? '', other?.rule),
    enabled: campaignId !== null && other?.isOther === true,
  });
