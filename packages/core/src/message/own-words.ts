/** Words that messages say of themselves, in English; for other languages see `ownWordsIn`. */
export const FORM_WORDS = {
  fill: 'Please fill this in.',
  mail: 'Please write it as name@example.org.',
  check: 'Please check this.',
  agree: 'Please tick this to go on.',
  unsent: 'This could not be sent. Please check your connection and try again.',
  later: 'This could not be sent. Please try again in a moment.',
} as const;
export const FURTHER_WORDS = {
  choose: 'Choose',
  /** `{n}` stands for how many megabytes. */
  picture: 'Please choose a picture of at most {n} MB.',
  /** `{a}` and `{b}` stand for two numbers, in words. */
  sum: 'What is {a} and {b} together?',
  sumWrong: 'This sum does not come out. It keeps robots away.',
  /** From nought to ten. */
  numbers: 'nought one two three four five six seven eight nine ten',
  copied: 'Copied',
  /** `{title}` stands for what is played. */
  play: 'Play: {title}',
} as const;

export type OwnWord = 'close' | keyof typeof FORM_WORDS | keyof typeof FURTHER_WORDS;
/** What a message says of itself in its own language, where that is not English or was worded anew. */
export type OwnWords = Readonly<Record<string, string>>;
