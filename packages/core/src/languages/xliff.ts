import { piecesOf } from './marked-text.ts';
import type { TranslatedText } from './translate.ts';

const ENTITIES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** Control characters that XML cannot hold (XML 1.0, 2.2). */
const UNWRITABLE = /[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/gu;
const escaped = (text: string): string =>
  text.replace(UNWRITABLE, '').replace(/[&<>"]/g, (letter) => ENTITIES[letter] ?? letter);

/** Marks of words set apart become inline codes, which a translator's tool keeps whole. */
const withCodes = (text: string): string =>
  piecesOf(text)
    .map(({ mark, text: words }) => (mark ? `<pc id="${mark}">${escaped(words)}</pc>` : escaped(words)))
    .join('');

/** How a text stands, in the words of the standard. */
const STATE: Readonly<Record<TranslatedText['state'], string>> = {
  missing: 'initial',
  older: 'initial',
  done: 'translated',
};

/** The texts of a message as an XLIFF file. Source: OASIS, XLIFF 2.1; a unit a text, named by its key. */
export function xliffOf(
  texts: readonly TranslatedText[],
  {
    original,
    language,
    name,
  }: { readonly original: string; readonly language: string; readonly name: string },
): string {
  const units = texts.map(
    ({ key, text, translated, state, step, what }) => `    <unit id="${escaped(key)}">
      <notes><note>${escaped(`${step}: ${what}`)}</note></notes>
      <segment state="${STATE[state]}">
        <source xml:space="preserve">${withCodes(text)}</source>${
          translated === ''
            ? ''
            : `
        <target xml:space="preserve">${withCodes(translated)}</target>`
        }
      </segment>
    </unit>
`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>
<xliff xmlns="urn:oasis:names:tc:xliff:document:2.0" version="2.1" srcLang="${original}" trgLang="${language}">
  <file id="message" original="${escaped(name)}">
${units.join('')}  </file>
</xliff>
`;
}
