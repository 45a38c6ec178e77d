import type { Languages, Message, Translated } from '@velarium/contract';
import type { OwnWord, OwnWords } from '../message/own-words.ts';
import { placesIn } from '../message/personal.ts';
import { writingDirection } from './direction.ts';
import { differingMarks } from './marked-text.ts';
import { changeMessageTexts, type MessageText, messageTexts } from './message-texts.ts';
import { carriedWords, ENGLISH_WORDS, ownWordsIn, wordsNeeded } from './own-words-in.ts';

/** Keys of the words that messages say of themselves. */
const OWN = '.words.';

/** A message in one of its languages. */
export interface InLanguage {
  readonly message: Message;
  /** `undefined` where a message says nothing of languages. */
  readonly language: string | undefined;
  readonly words: OwnWords | undefined;
}

/** Every language a message has, the original first; none where it says nothing of languages. */
export const languagesOf = ({ languages }: Pick<Message, 'languages'>): string[] =>
  languages ? [languages.original, ...languages.others.map(({ id }) => id)] : [];

const textsIn = (languages: Languages, language: string): Readonly<Record<string, Translated>> =>
  (language === languages.original
    ? languages.worded
    : languages.others.find((one) => one.id === language)?.texts) ?? {};

/**
 * The message as visitors of a language have it: texts that are missing stay as the original says them. Its saved blocks
 * must have been put in.
 */
export function inLanguage(message: Message, language = message.languages?.original): InLanguage {
  const { languages, ...rest } = message;
  if (!languages || !language) return { message, language: undefined, words: undefined };
  const texts = textsIn(languages, language);
  const written = (key: string, text: string) => texts[key]?.text || text;
  const isOriginal = language === languages.original;
  const words = Object.fromEntries(
    wordsNeeded(message).map((word) => [
      word,
      written(OWN + word, (ownWordsIn(language) ?? ENGLISH_WORDS)[word]),
    ]),
  );
  return {
    message: isOriginal
      ? { ...rest, direction: message.direction ?? writingDirection(language) }
      : { ...changeMessageTexts(rest, written), direction: writingDirection(language) },
    language,
    words: carriedWords(words),
  };
}

/** How a text stands in another language. */
export type TextState = 'missing' | 'older' | 'done';

/** One text of a message beside what it is in another language. */
export interface TranslatedText extends MessageText {
  readonly translated: string;
  readonly state: TextState;
  /** What the original said when it was translated, where it says something else now. */
  readonly was: string | undefined;
  /** What must be in both and is not: places for what is known of a visitor, and marks of words set apart. */
  readonly differing: readonly string[];
}

/** Places and marks that one of two texts has and the other has not. */
function differing(text: string, original: string): string[] {
  const places = (of: string) => placesIn(of).map(({ name }) => name);
  const [own, others] = [places(text), places(original)];
  return [
    ...[...new Set([...own, ...others])]
      .filter((name) => own.includes(name) !== others.includes(name))
      .map((name) => `{{${name}}}`),
    ...differingMarks(text, original),
  ];
}

const WORD_OF: Readonly<Record<OwnWord, string>> = {
  close: 'Close button, for screen readers',
  fill: 'When a field is empty',
  mail: 'When a mail address is none',
  check: 'When an answer does not fit',
  agree: 'When the consent is not ticked',
  unsent: 'When it could not be sent',
  later: 'When it could not be stored',
  choose: 'Before anything is chosen',
  picture: 'When a picture is too large',
  sum: 'The sum that keeps robots out',
  sumWrong: 'When the sum is wrong',
  numbers: 'Numbers in words, from nought to ten',
  copied: 'Once a link is copied',
  play: 'Button that plays a film',
};

/** What a message says of itself, as texts to be translated where nobody has. */
const ownTexts = (message: Message): MessageText[] =>
  wordsNeeded(message).map((word) => ({
    key: OWN + word,
    text: ENGLISH_WORDS[word],
    step: 'What messages say of themselves',
    what: WORD_OF[word],
  }));

/** Every text of a message beside what it is in a language. Its saved blocks must have been put in. */
export function translatedTexts(message: Message, language: string): TranslatedText[] {
  const { languages } = message;
  if (!languages) return [];
  const texts = textsIn(languages, language);
  const spoken = ownWordsIn(language);
  // The original has its texts; only what it says of itself can be said otherwise.
  const all = [...(language === languages.original ? [] : messageTexts(message)), ...ownTexts(message)];
  return all.map((one): TranslatedText => {
    const { text: translated = '', of } = texts[one.key] ?? {};
    const isOwn = one.key.startsWith(OWN);
    if (translated.trim() === '') {
      // What comes with Velarium need not be written.
      const given = isOwn ? (spoken?.[one.key.slice(OWN.length) as OwnWord] ?? '') : '';
      return { ...one, translated: given, state: given ? 'done' : 'missing', was: undefined, differing: [] };
    }
    const isOlder = !isOwn && of !== one.text;
    return {
      ...one,
      translated,
      state: isOlder ? 'older' : 'done',
      was: isOlder ? of : undefined,
      differing: isOwn ? [] : differing(translated, one.text),
    };
  });
}

/** A text as it was written, for what the original said then; for what it says now where that is not told. */
export interface Written {
  readonly text: string;
  readonly of?: string;
}

/**
 * The message with texts written in a language, by their keys; an empty one is taken away, and one that no text has is left
 * out. `whole` is the message with its saved blocks put in.
 */
export function withTranslated(
  message: Message,
  whole: Message,
  language: string,
  written: Readonly<Record<string, Written>>,
): Message {
  const { languages } = message;
  if (!languages) return message;
  const texts = new Map(Object.entries(textsIn(languages, language)));
  for (const { key, text: now } of [...messageTexts(whole), ...ownTexts(whole)]) {
    const { text, of = now } = (Object.hasOwn(written, key) ? written[key] : undefined) ?? {};
    if (text === undefined) continue;
    if (text.trim() === '') texts.delete(key);
    else texts.set(key, { text, of });
  }
  const next = Object.fromEntries(texts);
  return {
    ...message,
    languages:
      language === languages.original
        ? { ...languages, worded: next }
        : {
            ...languages,
            others: languages.others.map((one) => (one.id === language ? { ...one, texts: next } : one)),
          },
  };
}

/** How far a message has come in a language. */
export function translationState(whole: Message, language: string): Readonly<Record<TextState, number>> {
  const count = { missing: 0, older: 0, done: 0 };
  for (const { state } of translatedTexts(whole, language)) count[state] += 1;
  return count;
}

/** Adds a language; the first names what the message is written in. */
export function withLanguage(message: Message, language: string): Message {
  const { languages } = message;
  if (!languages) return { ...message, languages: { original: language, others: [] } };
  if (languagesOf(message).includes(language)) return message;
  return {
    ...message,
    languages: { ...languages, others: [...languages.others, { id: language, texts: {} }] },
  };
}

/** Takes a language away with its texts; a message without others says nothing of languages. */
export function withoutLanguage(message: Message, language: string): Message {
  const { languages, ...rest } = message;
  if (!languages) return message;
  const others = languages.others.filter((one) => one.id !== language);
  return others.length === 0 ? rest : { ...message, languages: { ...languages, others } };
}

/** Translations whose blocks have other ids now; what belongs to no block stays, and what belongs to one that is gone goes. */
export const withTextsMoved = (languages: Languages, moved: ReadonlyMap<string, string>): Languages => ({
  ...languages,
  others: languages.others.map(({ id, texts }) => ({
    id,
    texts: Object.fromEntries(
      Object.entries(texts).flatMap(([key, text]) => {
        const [block = '', ...part] = key.split('.');
        if (block === '') return [[key, text]];
        const next = moved.get(block);
        return next === undefined ? [] : [[[next, ...part].join('.'), text]];
      }),
    ),
  })),
});
