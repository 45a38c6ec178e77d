import type { AnsweredField } from '@velarium/contract';
import { fillText } from '@velarium/core';
import { type DrawnMail, escapeMarkup } from './draw-mail.ts';

/** The addresses that act for whoever gets a mail, by the names drawn mails have for them. */
export interface MailLinks {
  readonly confirm?: string;
  readonly leave?: string;
}
export const LEAVE_PLACE = '{{link.leave}}';
export const CONFIRM_PLACE = '{{link.confirm}}';

/** What somebody answered, by the id of the field (`answer.email`), and their links. */
const factsOf =
  (fields: readonly AnsweredField[], links: MailLinks) =>
  (name: string): string => {
    if (name.startsWith('link.')) return links[name.slice('link.'.length) as keyof MailLinks] ?? '';
    return name.startsWith('answer.') ? (fields.find(({ id }) => `answer.${id}` === name)?.value ?? '') : '';
  };

/** Fills the places of a mail from somebody's answers: as plain words everywhere, never as markup or a further header. */
export function fillPlaces(
  subject: string,
  { html, text }: DrawnMail,
  fields: readonly AnsweredField[],
  links: MailLinks = {},
): DrawnMail & { readonly subject: string } {
  const factOf = factsOf(fields, links);
  return {
    subject: fillText(subject, factOf).replace(/\s+/g, ' ').trim(),
    html: fillText(html, (name) => escapeMarkup(factOf(name))),
    text: fillText(text, factOf),
  };
}
