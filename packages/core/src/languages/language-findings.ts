import type { Message } from '@velarium/contract';
import type { DesignFinding } from '../checks/finding.ts';
import { counted } from '../sentence/words.ts';
import { languageName } from './direction.ts';
import { languagesOf, translatedTexts } from './translate.ts';

/** What of a message's other languages is not there, or says something else. Its saved blocks must have been put in. */
export function languageFindings(message: Message): DesignFinding[] {
  const [original = '', ...others] = languagesOf(message);
  return others.flatMap((language) => {
    const name = languageName(language);
    const texts = translatedTexts(message, language);
    const missing = texts.filter(({ state }) => state === 'missing');
    const older = texts.filter(({ state }) => state === 'older');
    const findings: DesignFinding[] = [];
    const add = (code: string, text: string) =>
      findings.push({ severity: 'warn', code, text, blockId: null });
    if (missing.some(({ key }) => key.endsWith('.consent')))
      add(
        'language.consent',
        `Who reads it in ${name} is asked for a consent in ${languageName(original)}. Write it under Languages.`,
      );
    if (missing.length > 0)
      add(
        'language.missing',
        `${counted(missing.length, 'text')} in ${name} ${missing.length === 1 ? 'is' : 'are'} missing: read in ${languageName(original)} instead. Write ${missing.length === 1 ? 'it' : 'them'} under Languages.`,
      );
    if (older.length > 0)
      add(
        'language.older',
        `${counted(older.length, 'text')} in ${name} ${older.length === 1 ? 'was' : 'were'} written before the original changed. Look at ${older.length === 1 ? 'it' : 'them'} under Languages.`,
      );
    for (const { what, differing } of texts)
      if (differing.length > 0)
        add(
          'language.differs',
          `${what} in ${name}: ${differing.join(', ')} ${differing.length === 1 ? 'is' : 'are'} in only one of the two. Mend it under Languages.`,
        );
    return findings;
  });
}
