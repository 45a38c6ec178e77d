import type { MailDraft, WrittenMail } from '@velarium/contract';

/** The mail as somebody reads it who answered in this language: the original where it is not written in it. */
export const mailIn = ({ mail, languages = {} }: WrittenMail, language: string | null): MailDraft =>
  (language !== null && Object.hasOwn(languages, language) && languages[language]) || mail;
