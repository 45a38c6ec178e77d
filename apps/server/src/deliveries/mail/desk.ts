import type { AnsweredField, MailDraft, MailPreview } from '@velarium/contract';
import { mailWords, ofSite, PLAIN_LOOK } from '@velarium/core';
import { Recent } from '../../infra/recent.ts';
import type { LibraryService } from '../../library/index.ts';
import type { SiteService } from '../../sites/index.ts';
import { type DrawnMail, drawMail, type MailSetting } from './draw-mail.ts';
import { CONFIRM_PLACE, fillPlaces, LEAVE_PLACE, type MailLinks } from './fill-places.ts';

export interface MailDesk {
  readonly sites: SiteService;
  readonly library: LibraryService;
  readonly edgeOrigin: string;
}

/** Mails kept drawn. Each costs some tens of milliseconds to draw, and goes out many times. */
const DRAWN = 200;
const PICTURE_WIDTH = 640;

/** What a mail is for: it says what stands below it and whether its button is its own. */
export type MailPurpose = 'confirmation' | 'welcome' | 'team';

/** Draws mails in the Look of the site they are of, and fills them for somebody. */
export function createMailDesk({ sites, library, edgeOrigin }: MailDesk) {
  const drawn = new Recent<Promise<DrawnMail>>(DRAWN);

  async function settingOf(
    workspaceId: string,
    siteId: string,
    draft: MailDraft,
    purpose: MailPurpose,
    { language, reader }: { readonly language: string | null; readonly reader: string | null },
  ): Promise<MailSetting> {
    const site = await sites.get(workspaceId, siteId);
    const look = (await library.looks.reader(siteId))(null);
    const file =
      draft.picture && (await library.pictures.files(siteId, [draft.picture.id]))[draft.picture.id];
    const width = file ? Math.max(...file.widths.filter((one) => one <= PICTURE_WIDTH), 0) : 0;
    const { words, language: said } = mailWords(reader);
    return {
      look,
      language: language ?? 'en',
      siteName: site.name,
      siteOrigin: site.origins[0] ?? '',
      pictureAddress:
        draft.picture && width > 0 ? `${edgeOrigin}/pictures/${draft.picture.id}/${width}` : null,
      footer: {
        language: purpose === 'team' ? 'en' : said,
        words: ofSite(
          {
            confirmation: words.asked,
            welcome: words.answered,
            team: 'Sent by Velarium for {site}.',
          }[purpose],
          site.name,
        ),
        leave: purpose === 'welcome' ? { label: words.leave, address: LEAVE_PLACE } : null,
      },
      action:
        purpose === 'confirmation'
          ? { label: draft.button?.label ?? words.confirm, address: CONFIRM_PLACE }
          : null,
    };
  }

  return {
    /** A mail of Velarium's own, of no site. */
    async writePlain(draft: MailDraft): Promise<MailPreview> {
      const footer = { language: 'en', words: 'Sent by Velarium.', leave: null };
      const setting = {
        look: PLAIN_LOOK,
        language: 'en',
        siteName: '',
        siteOrigin: '',
        pictureAddress: null,
        footer,
        action: null,
      };
      return { subject: draft.subject, ...(await drawMail(draft, setting)) };
    },
    /** A mail as it goes to one person. Lines somebody sent stay as they are: only the draft's own places are filled. */
    async write(
      { workspaceId, siteId }: { readonly workspaceId: string; readonly siteId: string },
      draft: MailDraft,
      purpose: MailPurpose,
      {
        fields = [],
        links = {},
        language = null,
        reader = null,
      }: {
        readonly fields?: readonly AnsweredField[] | undefined;
        readonly links?: MailLinks | undefined;
        /** What it is written in, and what is said to its reader below it; `null` for English. */
        readonly language?: string | null | undefined;
        readonly reader?: string | null | undefined;
      } = {},
    ): Promise<MailPreview> {
      const setting = await settingOf(workspaceId, siteId, draft, purpose, { language, reader });
      // What the team gets is made of what people sent, each time anew, and has no places.
      if (purpose === 'team') return { subject: draft.subject, ...(await drawMail(draft, setting)) };
      const key = JSON.stringify([draft, setting]);
      let ready = drawn.get(key);
      if (!ready) {
        ready = drawMail(draft, setting);
        drawn.set(key, ready);
        ready.catch(() => drawn.delete(key));
      }
      return fillPlaces(draft.subject, await ready, fields, links);
    },
  };
}
export type MailDeskService = ReturnType<typeof createMailDesk>;
