import { EntitySchema } from 'typeorm';

export interface MessageFileRow {
  siteId: string;
  hash: string;
  /** The exact bytes whose hash names the file. */
  body: string;
}
export const MessageFileEntity = new EntitySchema<MessageFileRow>({
  name: 'MessageFile',
  tableName: 'message_file',
  columns: {
    siteId: { type: 'uuid', name: 'site_id', primary: true },
    hash: { type: 'text', primary: true },
    body: { type: 'text' },
  },
});

export interface SiteManifestRow {
  siteId: string;
  etag: string;
  body: string;
  builtAt: Date;
}
export const SiteManifestEntity = new EntitySchema<SiteManifestRow>({
  name: 'SiteManifest',
  tableName: 'site_manifest',
  columns: {
    siteId: { type: 'uuid', name: 'site_id', primary: true },
    etag: { type: 'text' },
    body: { type: 'text' },
    builtAt: { type: 'timestamptz', name: 'built_at', createDate: true },
  },
});
