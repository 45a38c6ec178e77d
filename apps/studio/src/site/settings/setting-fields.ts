import type { SiteSettings } from '@velarium/contract';

/** What each part of the settings is given. */
export interface SettingFields {
  readonly settings: SiteSettings;
  readonly set: (change: Partial<SiteSettings>) => void;
}
