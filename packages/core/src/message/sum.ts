import { FURTHER_WORDS } from './own-words.ts';

/** The question, and numbers in words from nought to ten. */
interface SumWords {
  readonly sum: string;
  readonly numbers: string;
}

export interface Sum {
  readonly question: string;
  /** Whether an answer is right, in figures or as a word. */
  readonly isRight: (answer: string) => boolean;
  /** The question and its answer as they are sent, so that nobody has to remember what was asked. */
  readonly sent: (answer: string) => string;
}

/** Figures of the Arabic script, by their first ones: written with them, a number is the same. */
const ARABIC = /[٠-٩]/g;
const EASTERN_ARABIC = /[۰-۹]/g;
const figures = (answer: string): string =>
  answer
    .trim()
    .toLowerCase()
    .replace(ARABIC, (figure) => `${figure.charCodeAt(0) - 0x660}`)
    .replace(EASTERN_ARABIC, (figure) => `${figure.charCodeAt(0) - 0x6f0}`);

const isSum = (a: number, b: number, answer: string, numbers: readonly string[]): boolean =>
  [`${a + b}`, numbers[a + b]].includes(figures(answer));

const numbersOf = (words: string): string[] => words.split(' ');

/** A sum in words that keeps simple robots out; which one follows from the seed. */
export function sumOf(seed: string, words: SumWords = FURTHER_WORDS): Sum {
  let mixed = 7;
  for (const letter of seed) mixed = (mixed * 31 + letter.charCodeAt(0)) % 9973;
  const [a, b] = [1 + (mixed % 5), 1 + (mixed % 4)];
  const numbers = numbersOf(words.numbers);
  return {
    question: words.sum.replace('{a}', numbers[a] ?? `${a}`).replace('{b}', numbers[b] ?? `${b}`),
    isRight: (answer) => isSum(a, b, answer, numbers),
    // Whoever reads it again need not know the language.
    sent: (answer) => `${a}+${b}=${isSum(a, b, answer, numbers) ? a + b : answer.trim()}`,
  };
}

/** Whether what was sent is a sum of ours with its right answer. */
export function isSumAnswered(sent: string): boolean {
  const [, a, b, answer] = /^([1-5])\+([1-4])=(.+)$/.exec(sent) ?? [];
  return answer !== undefined && isSum(Number(a), Number(b), answer, numbersOf(FURTHER_WORDS.numbers));
}
