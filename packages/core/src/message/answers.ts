import type { Field } from '@velarium/contract';
import { compileRegex } from '../patterns/compile.ts';
import { matches } from '../patterns/run.ts';
import { FORM_WORDS, type OwnWords } from './own-words.ts';

/** Whether the whole answer fits a marketer's pattern, in linear time; one that cannot be read refuses nobody. */
export function fitsPattern(pattern: string, value: string): boolean {
  try {
    return matches(compileRegex(`^(?:${pattern})$`), value);
  } catch {
    return true;
  }
}

/** What each person may attach. Drawings are left out: they can hold scripts. */
export const FILE_TYPES = ['image/png', 'image/jpeg', 'image/webp', 'image/avif', 'image/gif'] as const;

/** What a visitor is told of an answer that is missing or does not fit. */
export function faultWords({ kind, errorText }: Field, isMissing: boolean, words: OwnWords = {}): string {
  const say = (word: 'fill' | 'mail' | 'check') => words[word] ?? FORM_WORDS[word];
  return isMissing ? say('fill') : errorText || say(kind === 'email' ? 'mail' : 'check');
}

/** What is wrong with an answer, in words for who gave it; empty when nothing is. */
export function answerFault(
  field: Field,
  value: string,
  isMail: (value: string) => boolean,
  words?: OwnWords,
): string {
  if (value === '') return field.required ? faultWords(field, true, words) : '';
  const options = field.options ?? [];
  const isFitting =
    field.kind === 'email'
      ? isMail(value)
      : field.kind === 'select'
        ? options.includes(value)
        : field.kind === 'ticks'
          ? value.split(', ').every((one) => options.some((option) => option.split(', ').includes(one)))
          : field.kind === 'date'
            ? /^\d{4}-\d\d-\d\d$/.test(value)
            : true;
  if (isFitting && (!field.pattern || fitsPattern(field.pattern, value))) return '';
  return faultWords(field, false, words);
}
