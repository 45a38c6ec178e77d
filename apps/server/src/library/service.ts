import type { Message, MessageFile } from '@velarium/contract';
import { partsOf, picturesOf, withSavedBlocks } from '@velarium/core';
import { sheetOf } from '@velarium/render/sheet';
import type { DataSource, EntityManager } from 'typeorm';
import { createOwnTemplates, createSavedBlocks } from './keepsakes.ts';
import { createLooks } from './looks.ts';
import { createPictures } from './pictures.ts';

/** In a sheet, stands for the origin of the edge: the tag knows where that is, the database need not. */
const EDGE = 'edge:';

/** What a site's messages are made of beside their own words. */
export function createLibraryService(db: DataSource) {
  const looks = createLooks(db);
  const pictures = createPictures(db);
  const savedBlocks = createSavedBlocks(db);
  const templates = createOwnTemplates(db);
  return {
    looks,
    pictures,
    savedBlocks,
    templates,
    /** Makes messages into what pages load: saved blocks put in, the sheet made, the pictures named. */
    async messageMaker(
      site: {
        readonly id: string;
        readonly settings: { readonly breakpoints: { mobile: number; tablet: number } };
      },
      manager?: EntityManager,
    ) {
      const lookOf = await looks.reader(site.id, manager);
      const savedOf = await savedBlocks.reader(site.id, manager);
      return async (draft: Message): Promise<MessageFile> => {
        const message = withSavedBlocks(draft, savedOf);
        const files = await pictures.files(site.id, picturesOf(message), manager);
        return {
          message,
          sheet: sheetOf(message, {
            look: lookOf(message.look),
            breakpoints: site.settings.breakpoints,
            pictures: files,
            pictureBase: EDGE,
          }),
          pictures: { ...files },
          parts: partsOf(message),
        };
      };
    },
  };
}
export type LibraryService = ReturnType<typeof createLibraryService>;
