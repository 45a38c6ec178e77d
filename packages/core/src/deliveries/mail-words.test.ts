import { describe, expect, it, test } from 'vitest';
import { mailIn } from './mail-in.ts';
import { mailWords, ofSite } from './mail-words.ts';

const LANGUAGES = ['en', 'cy', 'de', 'fr', 'es', 'pl', 'ar', 'he'];

describe('what mails say of themselves', () => {
  test.each(LANGUAGES)('is whole in %s, and names the site where English does', (language) => {
    const { words, language: found } = mailWords(language);
    expect(found).toBe(language);
    const english = mailWords('en').words;
    expect(Object.keys(words).sort()).toEqual(Object.keys(english).sort());
    for (const [name, said] of Object.entries(words)) {
      const meant = [english[name as keyof typeof english]].flat();
      [said].flat().forEach((one, n) => {
        expect(one.length, name).toBeGreaterThan(1);
        expect([name, one.includes('{site}')]).toEqual([name, meant[n]?.includes('{site}')]);
      });
    }
  });

  test.each<[string | null, string]>([
    ['de-AT', 'de'],
    ['pt-BR', 'en'],
    [null, 'en'],
    ['constructor', 'en'],
  ])('%s is said in %s', (language, expected) => {
    expect(mailWords(language).language).toBe(expected);
  });

  it('takes a site’s name as it is', () => {
    expect(ofSite('{site} writes. {site}!', '$& Co')).toBe('$& Co writes. $& Co!');
  });
});

describe('which mail goes out', () => {
  const [mail, inWelsh] = [{ subject: 'Welcome' }, { subject: 'Croeso' }] as never[];
  test.each<[string | null, unknown]>([
    ['cy', inWelsh],
    ['de', mail],
    ['toString', mail],
    [null, mail],
  ])('to somebody who answered in %s', (language, expected) => {
    expect(mailIn({ mail: mail as never, languages: { cy: inWelsh as never } }, language)).toBe(expected);
  });
  it('the one there is where it has one only', () => {
    expect(mailIn({ mail: mail as never }, 'cy')).toBe(mail);
  });
});
