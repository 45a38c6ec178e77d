import type { LookRead, Message, MessageFile } from '@velarium/contract';
import { inLanguage, partsOf, picturesOf, withFiles, withSavedBlocks } from '@velarium/core';
import { sheetOf } from '@velarium/render/sheet';
import type { DataSource, EntityManager } from 'typeorm';
import type { ReadOutside } from '../infra/outside.ts';
import { createFilms } from './films.ts';
import { createOwnTemplates, createSavedBlocks } from './keepsakes.ts';
import { createLetters } from './letters.ts';
import { createLooks } from './looks.ts';
import { createPictures } from './pictures.ts';
import { readLook } from './read-look.ts';

/** In a sheet, stands for the origin of the edge: the tag knows where that is, the database need not. */
const EDGE = 'edge:';

/** What a site's messages are made of beside their own words. */
export function createLibraryService(db: DataSource, outside: ReadOutside) {
  const looks = createLooks(db);
  const letters = createLetters(db);
  const pictures = createPictures(db);
  const films = createFilms(outside, pictures);
  const savedBlocks = createSavedBlocks(db);
  const templates = createOwnTemplates(db);
  return {
    looks,
    letters,
    pictures,
    films,
    /** How a page of the site looks, as a Look; the letters it is set in are kept for the studio to show. */
    async readLook(siteId: string, origin: string, path: string): Promise<LookRead> {
      const { faces, ...look } = await readLook(outside, origin, path);
      for (const { family, bytes, like } of faces) await letters.keepFound(siteId, family, bytes, like);
      return look;
    },
    savedBlocks,
    templates,
    /** Makes messages, in one of their languages, into what pages load: saved blocks put in, the sheet made, the pictures named. */
    async messageMaker(
      site: {
        readonly id: string;
        readonly settings: { readonly breakpoints: { mobile: number; tablet: number } };
      },
      manager?: EntityManager,
    ) {
      const lookOf = await looks.reader(site.id, manager);
      const savedOf = await savedBlocks.reader(site.id, manager);
      return async (draft: Message, wanted?: string): Promise<MessageFile> => {
        const { message, language, words } = inLanguage(withSavedBlocks(draft, savedOf), wanted);
        const files = await pictures.files(site.id, picturesOf(message), manager);
        const look = lookOf(message.look);
        const parts = partsOf(message, look);
        const loaded = await letters.loadedBy(site.id, look, { message, words, parts }, manager);
        return {
          message,
          sheet: sheetOf(message, {
            look: withFiles(look, (id) => loaded.find((one) => one.id === id)?.family),
            breakpoints: site.settings.breakpoints,
            pictures: files,
            letters: loaded,
            pictureBase: EDGE,
          }),
          pictures: { ...files },
          parts,
          ...(language ? { language } : {}),
          ...(words ? { words } : {}),
        };
      };
    },
  };
}
export type LibraryService = ReturnType<typeof createLibraryService>;
