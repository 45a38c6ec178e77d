import { z } from 'zod';
import { leafOrColumnsSchema } from './message/blocks.ts';
import { messageSchema, pictureFileSchema } from './message/message.ts';
import { frameAddressSchema } from './message/text.ts';

const name = z.string().trim().min(1, 'give it a name').max(120, 'keep it to 120 characters');

/** A picture of a site's library. */
export const pictureSchema = z.strictObject({
  id: z.uuid(),
  name: z.string(),
  /** What it shows, offered where it is used. */
  alt: z.string(),
  file: pictureFileSchema,
  /** Bytes a phone loads for it. */
  weight: z.number().int(),
  /** Names of the campaigns that show it. */
  usedBy: z.array(z.string()),
  createdAt: z.iso.datetime(),
});
export type Picture = z.infer<typeof pictureSchema>;
export const changePictureSchema = z.strictObject({ name, alt: z.string().trim().max(300) });

/** What a film's host tells of it. */
export const askFilmSchema = z.strictObject({ address: z.string().trim().min(1).max(2048) });
export const filmFactsSchema = z.strictObject({
  /** Of the frame it plays in. */
  address: frameAddressSchema,
  title: z.string().max(200),
  /** Its still, taken into the site's library. */
  picture: z.uuid().nullable(),
  /** Width to height, per cent, as the block has it; `null` where the host does not say. */
  ratio: z.number().int().nullable(),
});
export type FilmFacts = z.infer<typeof filmFactsSchema>;

/** A block kept by name, used in any number of campaigns. */
export const savedBlockSchema = z.strictObject({
  id: z.uuid(),
  name: z.string(),
  block: leafOrColumnsSchema,
  usedBy: z.array(z.string()),
});
export type SavedBlock = z.infer<typeof savedBlockSchema>;
export const saveBlockSchema = z.strictObject({ name, block: leafOrColumnsSchema });

/** A finished message kept to begin from. */
export const ownTemplateSchema = z.strictObject({ id: z.uuid(), name: z.string(), message: messageSchema });
export type OwnTemplate = z.infer<typeof ownTemplateSchema>;
export const saveTemplateSchema = z.strictObject({ name, message: messageSchema });
export type SaveBlock = z.infer<typeof saveBlockSchema>;
export type SaveTemplate = z.infer<typeof saveTemplateSchema>;
