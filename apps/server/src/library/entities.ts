import type { Block, LookStyle, Message } from '@velarium/contract';
import { EntitySchema } from 'typeorm';

export interface LookRow {
  id: string;
  siteId: string;
  name: string;
  isDefault: boolean;
  style: LookStyle;
  createdAt: Date;
}
export const LookEntity = new EntitySchema<LookRow>({
  name: 'Look',
  tableName: 'look',
  columns: {
    id: { type: 'uuid', primary: true, generated: 'uuid' },
    siteId: { type: 'uuid', name: 'site_id' },
    name: { type: 'text' },
    isDefault: { type: 'boolean', name: 'is_default' },
    style: { type: 'jsonb' },
    createdAt: { type: 'timestamptz', name: 'created_at', createDate: true },
  },
});

export interface PictureRow {
  id: string;
  siteId: string;
  name: string;
  alt: string;
  width: number;
  height: number;
  /** Widths it can be had in. */
  widths: number[];
  weight: number;
  createdAt: Date;
}
export const PictureEntity = new EntitySchema<PictureRow>({
  name: 'Picture',
  tableName: 'picture',
  columns: {
    id: { type: 'uuid', primary: true, generated: 'uuid' },
    siteId: { type: 'uuid', name: 'site_id' },
    name: { type: 'text' },
    alt: { type: 'text' },
    width: { type: 'integer' },
    height: { type: 'integer' },
    widths: { type: 'integer', array: true },
    weight: { type: 'integer' },
    createdAt: { type: 'timestamptz', name: 'created_at', createDate: true },
  },
});

export interface PictureFileRow {
  pictureId: string;
  width: number;
  /** Media type. */
  type: string;
  bytes: Buffer;
}
export const PictureFileEntity = new EntitySchema<PictureFileRow>({
  name: 'PictureFile',
  tableName: 'picture_file',
  columns: {
    pictureId: { type: 'uuid', primary: true, name: 'picture_id' },
    width: { type: 'integer', primary: true },
    type: { type: 'text', primary: true },
    bytes: { type: 'bytea' },
  },
});

export interface SavedBlockRow {
  id: string;
  siteId: string;
  name: string;
  block: Block;
}
export const SavedBlockEntity = new EntitySchema<SavedBlockRow>({
  name: 'SavedBlock',
  tableName: 'saved_block',
  columns: {
    id: { type: 'uuid', primary: true, generated: 'uuid' },
    siteId: { type: 'uuid', name: 'site_id' },
    name: { type: 'text' },
    block: { type: 'jsonb' },
  },
});

export interface OwnTemplateRow {
  id: string;
  siteId: string;
  name: string;
  message: Message;
}
export const OwnTemplateEntity = new EntitySchema<OwnTemplateRow>({
  name: 'OwnTemplate',
  tableName: 'own_template',
  columns: {
    id: { type: 'uuid', primary: true, generated: 'uuid' },
    siteId: { type: 'uuid', name: 'site_id' },
    name: { type: 'text' },
    message: { type: 'jsonb' },
  },
});
