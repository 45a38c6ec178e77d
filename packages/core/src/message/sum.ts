const NUMBERS = [
  'nought',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
] as const;

export interface Sum {
  readonly question: string;
  /** Whether an answer is right, in figures or as a word. */
  readonly isRight: (answer: string) => boolean;
  /** The question and its answer as they are sent, so that nobody has to remember what was asked. */
  readonly sent: (answer: string) => string;
}

const isSum = (a: number, b: number, answer: string): boolean =>
  [`${a + b}`, NUMBERS[a + b]].includes(answer.trim().toLowerCase());

/** A sum in words that keeps simple robots out; which one follows from the seed. */
export function sumOf(seed: string): Sum {
  let mixed = 7;
  for (const letter of seed) mixed = (mixed * 31 + letter.charCodeAt(0)) % 9973;
  const [a, b] = [1 + (mixed % 5), 1 + (mixed % 4)];
  return {
    question: `What is ${NUMBERS[a]} and ${NUMBERS[b]} together?`,
    isRight: (answer) => isSum(a, b, answer),
    sent: (answer) => `${a}+${b}=${answer.trim()}`,
  };
}

/** Whether what was sent is a sum of ours with its right answer. */
export function isSumAnswered(sent: string): boolean {
  const [, a, b, answer] = /^([1-5])\+([1-4])=(.+)$/.exec(sent) ?? [];
  return answer !== undefined && isSum(Number(a), Number(b), answer);
}
