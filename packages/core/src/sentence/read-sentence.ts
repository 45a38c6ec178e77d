import { type Anchor, FORMATS, type Format, NORMAL_PRIORITY } from '@velarium/contract/values';
import { FORMAT_ANCHORS } from '../message/placement.ts';
import { as, either, maybe, type Parser, quantityOf, readWhole, said, words } from './parsers.ts';
import { caps, experiment, pause, priority, schedule } from './read-limits.ts';
import { moment } from './read-moment.ts';
import { audienceSaid, devicesSaid, type Ids, pagesSaid } from './read-reach.ts';
import { placeWords, type SentenceInput } from './rule-sentence.ts';

const place = either<{ format: Format; anchor: Anchor }>(
  ...FORMATS.flatMap((format) =>
    FORMAT_ANCHORS[format].map((anchor) => words(placeWords(format, anchor), { format, anchor })),
  ),
);

const after = <Value>(parser: Parser<Value>) => as(said`, ${parser}`, ([value]) => value);

/** The grammar of what `ruleSentence` says, for a site's names. */
const sentence = (ids: Ids): Parser<SentenceInput> =>
  as(
    said`${place} opens ${moment}${maybe(words(',', null), null)} ${pagesSaid(ids)}, ${devicesSaid}${maybe(after(audienceSaid(ids)), null)}${maybe(
      after(schedule),
      null,
    )}, ${caps}${maybe(
      words(', giving way when another message has the floor', 'yield' as const),
      'wait' as const,
    )}${maybe(after(priority), NORMAL_PRIORITY)}${either(
      words(', even where nothing can be remembered', 'always' as const),
      words(', never where nothing can be remembered', 'never' as const),
      words('', 'whenUncapped' as const),
    )}${maybe(after(experiment), { holdout: 0, variants: [] })}${maybe(
      said`. It closes by itself after ${quantityOf('second')}`,
      [null] as const,
    )}. After a close${either(
      words(', which counts as a no, ', 'no' as const),
      words(' ', 'later' as const),
    )}${pause}${maybe(said`; after a no ${pause}`, ['none'] as const)}; after a conversion ${pause}.`,
    ([
      { format, anchor },
      when,
      _comma,
      pages,
      devices,
      audience,
      runs,
      often,
      whenBusy,
      rank,
      withoutMemory,
      { holdout, variants },
      [afterSeconds],
      means,
      afterClose,
      [afterNo],
      afterConversion,
    ]) => ({
      format,
      anchor,
      closing: { afterSeconds, means },
      variants,
      rule: {
        moment: when,
        reach: { pages, devices: [...devices], audience },
        limits: {
          ...often,
          afterClose,
          afterNo,
          afterConversion,
          schedule: runs,
          whenBusy,
          priority: rank,
          withoutMemory,
          holdout,
        },
      },
    }),
  );

/** The rule that a whole sentence of the product's own stands for; nothing where it is not one. */
export const readSentence = (text: string, ids: Ids): SentenceInput | undefined =>
  readWhole(sentence(ids), text.trim());
