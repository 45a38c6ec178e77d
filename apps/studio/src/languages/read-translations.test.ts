// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { UnreadableFile } from '../ui/unreadable-file.ts';
import { readTranslations } from './read-translations.ts';

const file = (units: string, trgLang = 'de', prefix = '') =>
  `<${prefix}xliff xmlns${prefix && ':x'}="urn:oasis:names:tc:xliff:document:2.0" version="2.1" srcLang="en" trgLang="${trgLang}"><${prefix}file id="m">${units}</${prefix}file></${prefix}xliff>`;

describe('XLIFF as tools send it back (OASIS, XLIFF 2.1)', () => {
  it.each([
    [
      'one segment',
      '<unit id="a"><segment><source>Clear skies</source><target>Klarer Himmel</target></segment></unit>',
      { of: 'Clear skies', text: 'Klarer Himmel' },
    ],
    [
      'cut into sentences, with what parts them',
      '<unit id="a"><segment><source>Come. </source><target>Komm.</target></segment><ignorable><source> </source></ignorable><segment><source>Look.</source><target>Schau.</target></segment></unit>',
      { of: 'Come.  Look.', text: 'Komm. Schau.' },
    ],
    [
      'codes in one piece and in two',
      '<unit id="a"><segment><source><pc id="1">Free</pc> tonight</source><target>Heute <sc id="1"/>frei<ec startRef="1"/></target></segment></unit>',
      { of: '<1>Free</1> tonight', text: 'Heute <1>frei</1>' },
    ],
    [
      'a comment of the tool around some words',
      '<unit id="a"><segment><source>Dome</source><target>Die <mrk id="m1" type="comment">Kuppel</mrk></target></segment></unit>',
      { of: 'Dome', text: 'Die Kuppel' },
    ],
  ])('%s', async (_, units, written) => {
    expect(await readTranslations(file(units))).toEqual({ language: 'de', written: { a: written } });
  });

  it('with a prefix for the standard’s names', async () => {
    const units =
      '<x:unit id="a"><x:segment><x:source>Dome</x:source><x:target>Kuppel</x:target></x:segment></x:unit>';
    const { written } = await readTranslations(file(units, 'de', 'x:'));
    expect(written).toEqual({ a: { of: 'Dome', text: 'Kuppel' } });
  });

  it('leaves out what is not translated, also in part', async () => {
    const units =
      '<unit id="a"><segment><source>Dome</source></segment></unit><unit id="b"><segment><source>Come.</source><target>Komm.</target></segment><segment><source>Look.</source></segment></unit>';
    expect((await readTranslations(file(units))).written).toEqual({});
  });

  it('takes a language whatever its capitals (BCP 47, 2.1.1), and says what is none', async () => {
    expect((await readTranslations(file('', 'PT-br'))).language).toBe('pt-BR');
    await expect(readTranslations(file('', 'no language'))).rejects.toThrow(
      new UnreadableFile('It says that it is in “no language”, which is no language.'),
    );
  });
});

describe('a table (RFC 4180)', () => {
  it('is read in whichever way a sheet parts its columns', async () => {
    for (const mark of [',', ';', '\t']) {
      const rows = [
        ['key', 'where', 'original', 'translation'],
        ['a', 'First step', 'Dome', 'Kuppel'],
      ];
      const { written } = await readTranslations(rows.map((row) => row.join(mark)).join('\r\n'));
      expect(written).toEqual({ a: { of: 'Dome', text: 'Kuppel' } });
    }
  });

  it('in which a quotation mark stays open is refused, since everything after it would be one text', async () => {
    const table = 'key,original,translation\na,Dome,"Kuppel\nb,Sky,Himmel\n';
    await expect(readTranslations(table)).rejects.toThrow(/In row 2 a quotation mark is not closed/);
  });
});
