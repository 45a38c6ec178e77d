import type { CampaignDocument } from '@velarium/contract';
import { campaignDocumentSchema } from '@velarium/contract';
import { withFormat } from '../message/placement.ts';
import { experimentWords } from '../sentence/limits-words.ts';
import { readSentence } from '../sentence/read-sentence.ts';
import type { SentenceInput } from '../sentence/rule-sentence.ts';
import { listen } from './listen.ts';
import { piecesOf } from './pieces.ts';
import { changeOf, idsOf, isEmpty, newReading, type SiteWords } from './reading.ts';

export interface Wishes {
  /** What the wishes make of a campaign; the same one where nothing was understood. */
  readonly apply: (document: CampaignDocument) => CampaignDocument;
  readonly isUnderstood: boolean;
  /** What becomes of the message's design, each change in words. */
  readonly designs: readonly string[];
  /** What was typed and not understood, piece by piece, with the reason where there is one. */
  readonly rest: readonly string[];
  /** Those of them that say why they cannot be had. */
  readonly reasons: readonly string[];
}

/** A whole sentence of the product’s own may be long. */
const MOST_SENTENCE_LETTERS = 900_000;
/** A whole sentence of the product's own takes the place of the whole rule. */
function ofSentence({ format, anchor, closing, rule, variants }: SentenceInput, document: CampaignDocument) {
  const message = withFormat(document.message, format);
  return {
    message: { ...message, anchor, close: { ...message.close, ...closing } },
    rule,
    variants: document.variants.map((variant) => ({
      ...variant,
      weight: variants.find(({ id }) => id === variant.id)?.weight ?? variant.weight,
    })),
  };
}

/** A sentence that speaks of other variants than there are cannot be had whole. */
function otherVariants({ variants }: SentenceInput, { variants: known }: SiteWords): string[] {
  const isSame = variants.length === known.length && variants.every(({ id }) => known.includes(id));
  return isSame ? [] : [`${experimentWords(0, variants) || 'one variant'} (${known.length + 1} are there)`];
}

/**
 * Reads wishes as people type them: `after 20 seconds on journal, not on phones, once a week`, or a whole sentence as
 * the product writes it. A piece is taken whole or named among the rest: nothing is taken by halves, cut to what is
 * allowed, or silently changed.
 */
export function readWishes(typed: string, site: SiteWords): Wishes {
  const text = typed.trim();
  const sentence = text.length <= MOST_SENTENCE_LETTERS ? readSentence(text, idsOf(site)) : undefined;
  if (sentence && campaignDocumentSchema.shape.rule.safeParse(sentence.rule).success)
    return {
      apply: (document) => ofSentence(sentence, document),
      isUnderstood: true,
      designs: [],
      rest: otherVariants(sentence, site),
      reasons: [],
    };
  const reading = newReading(site.today);
  const { pieces, beyond } = piecesOf(text);
  const { rest, reasons } = listen({ text, pieces, reading, site });
  const isUnderstood = !isEmpty(reading);
  return {
    apply: isUnderstood ? changeOf(reading) : (document) => document,
    isUnderstood,
    designs: reading.designs.map(({ said }) => said),
    rest: beyond === '' ? rest : [...rest, beyond],
    reasons,
  };
}
