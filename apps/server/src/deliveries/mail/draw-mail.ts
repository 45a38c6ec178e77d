import type { LookStyle, MailDraft, RichText } from '@velarium/contract';
import { fontStack, writingDirection } from '@velarium/core';
import mjml2html from 'mjml';

/** What a mail is drawn with beside its own words. */
export interface MailSetting {
  readonly look: LookStyle;
  /** What its words are in (BCP 47); the mail is laid out as that is written. */
  readonly language: string;
  readonly siteName: string;
  /** Where addresses that begin with a slash lead. */
  readonly siteOrigin: string;
  /** The whole address of the mail's picture. */
  readonly pictureAddress: string | null;
  /** Why somebody gets it, and the word of the link by which they leave. */
  readonly footer: {
    /** What these words are in, which may be another language than the mail's. */
    readonly language: string;
    readonly words: string;
    readonly leave: { readonly label: string; readonly address: string } | null;
  };
  /** Takes the place of the mail's own button: what a confirmation is confirmed by. */
  readonly action: { readonly label: string; readonly address: string } | null;
}

/** A mail with its places still open, in both parts. */
export interface DrawnMail {
  readonly html: string;
  readonly text: string;
}

export const escapeMarkup = (text: string): string =>
  text.replace(/[&<>"']/g, (letter) => `&#${letter.charCodeAt(0)};`);

const WIDTH = 600;
const SIZES = { small: 0.85, large: 1.25 } as const;

/** Draws a mail in the site's Look. Texts may hold places, which whoever sends it fills; see {@link fillPlaces}. */
export async function drawMail(draft: MailDraft, setting: MailSetting): Promise<DrawnMail> {
  const { palette, fonts, textSize, corners } = setting.look;
  const button = setting.action ?? draft.button;
  const stack = (font: string) => fontStack(font).replaceAll('"', "'");
  const paragraphs = draft.text
    .map((paragraph) => `<mj-text>${spansToMarkup(paragraph, setting)}</mj-text>`)
    .join('');
  const direction = writingDirection(setting.language);
  const start = startOf(setting.language);
  const { html, errors } = await mjml2html(
    `<mjml lang="${escapeMarkup(setting.language)}" dir="${direction}"><mj-head>
      <mj-title>${escapeMarkup(draft.subject)}</mj-title>
      <mj-preview>${escapeMarkup(draft.preview)}</mj-preview>
      <mj-attributes>
        <mj-section direction="${direction}" />
        <mj-column direction="${direction}" />
        <mj-text align="${start}" padding="6px 28px" font-family="${stack(fonts.text)}" font-size="${textSize}px" line-height="1.55" color="${palette.ink}" />
      </mj-attributes>
    </mj-head>
    <mj-body width="${WIDTH}px" background-color="${palette.field}">
      <mj-section padding="24px 0 0" />
      <mj-section background-color="${palette.surface}" border-radius="${corners.box}px" padding="20px 0 26px">
        <mj-column>
          ${draft.picture && setting.pictureAddress ? `<mj-image padding="8px 28px 14px" src="${escapeMarkup(setting.pictureAddress)}" alt="${escapeMarkup(draft.picture.alt)}" />` : ''}
          ${draft.heading ? `<mj-text css-class="heading" font-family="${stack(fonts.heading)}" font-size="${Math.round(textSize * 1.6)}px" line-height="1.25">${escapeMarkup(draft.heading)}</mj-text>` : ''}
          ${paragraphs}
          ${button ? `<mj-button align="${start}" padding="14px 28px 4px" href="${escapeMarkup(button.address)}" background-color="${palette.accent}" color="${palette.accentText}" border-radius="${corners.control}px" font-family="${stack(fonts.text)}" font-size="${textSize}px" inner-padding="11px 20px">${escapeMarkup(button.label)}</mj-button>` : ''}
        </mj-column>
      </mj-section>
      <mj-section padding="10px 0 24px"><mj-column>
        <mj-text align="${startOf(setting.footer.language)}" font-size="12px" color="${palette.fieldText}"><span lang="${escapeMarkup(setting.footer.language)}" dir="${writingDirection(setting.footer.language)}">${escapeMarkup(setting.footer.words)}${
          setting.footer.leave
            ? ` <a style="color:inherit" href="${escapeMarkup(setting.footer.leave.address)}">${escapeMarkup(setting.footer.leave.label)}</a>`
            : ''
        }</span></mj-text>
      </mj-column></mj-section>
    </mj-body></mjml>`,
    { validationLevel: 'soft' },
  );
  if (errors.length > 0) throw new Error(`mail: ${errors[0]?.formattedMessage}`);
  return { html, text: plainText(draft, setting, button) };
}

/** The side a language is read from, as style sheets of mails name it. */
const startOf = (language: string) => (writingDirection(language) === 'rtl' ? 'right' : 'left');

const wholeAddress = (address: string, { siteOrigin }: MailSetting): string =>
  address.startsWith('/') ? siteOrigin + address : address;

function spansToMarkup(paragraph: RichText[number], setting: MailSetting): string {
  const { palette } = setting.look;
  const words = paragraph
    .map(({ text, bold, italic, link, colour, size }) => {
      const role = colour?.startsWith('#') ? colour : colour && palette[colour as keyof typeof palette];
      const style = `${role ? `color:${role};` : ''}${size ? `font-size:${SIZES[size]}em;` : ''}`;
      let markup = escapeMarkup(text).replaceAll('\n', '<br/>');
      if (style) markup = `<span style="${escapeMarkup(style)}">${markup}</span>`;
      if (bold) markup = `<b>${markup}</b>`;
      if (italic) markup = `<i>${markup}</i>`;
      return link
        ? `<a style="color:${palette.accent}" href="${escapeMarkup(wholeAddress(link, setting))}">${markup}</a>`
        : markup;
    })
    .join('');
  // An empty paragraph keeps its height.
  return words || '&#160;';
}

/** The same words without markup; a link stands after its words. */
function plainText(draft: MailDraft, setting: MailSetting, button: MailDraft['button']): string {
  const spans = (paragraph: RichText[number]) =>
    paragraph.map(({ text, link }) => (link ? `${text} (${wholeAddress(link, setting)})` : text)).join('');
  const { words, leave } = setting.footer;
  return [
    ...(draft.heading ? [draft.heading] : []),
    ...draft.text.map(spans),
    ...(button ? [`${button.label}: ${button.address}`] : []),
    `-- \n${words}${leave ? `\n${leave.label}: ${leave.address}` : ''}`,
  ].join('\n\n');
}
