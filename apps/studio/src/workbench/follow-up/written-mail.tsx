import type { MailDraft, WrittenMail } from '@velarium/contract';
import { languageName } from '@velarium/core';
import type { ReactNode } from 'react';
import { Button } from '../../ui/button.tsx';
import { Select } from '../../ui/select.tsx';

interface WrittenMailEditorProps {
  readonly written: WrittenMail;
  /** Of the message, the original first. */
  readonly languages: readonly string[];
  /** The one that is looked at. */
  readonly language: string;
  readonly onLanguage: (language: string) => void;
  readonly onChange: (written: WrittenMail) => void;
  /** Draws the words of one mail; `path` names it among what is checked. */
  readonly editor: (mail: MailDraft, path: string, onChange: (mail: MailDraft) => void) => ReactNode;
}

/** A mail in the languages of its message: each goes to whoever answered in it. */
export function WrittenMailEditor({
  written,
  languages,
  language,
  onLanguage,
  onChange,
  editor,
}: WrittenMailEditorProps) {
  const [original] = languages;
  const isOriginal = language === original || languages.length < 2;
  const others = written.languages ?? {};
  const own = others[language];
  const put = (mail: MailDraft) => onChange({ ...written, languages: { ...others, [language]: mail } });
  return (
    <>
      {languages.length > 1 && (
        <Select
          label="Written in"
          value={language}
          options={languages.map((one) => ({
            value: one,
            label: `${languageName(one)}${one === original ? ', the original' : others[one] ? '' : ', not written yet'}`,
          }))}
          onChange={onLanguage}
        />
      )}
      {isOriginal ? (
        editor(written.mail, 'mail', (mail) => onChange({ ...written, mail }))
      ) : own ? (
        <>
          {editor(own, `languages.${language}`, put)}
          <Button
            className="justify-self-start"
            onClick={() => {
              const { [language]: _, ...rest } = others;
              onChange({ ...written, languages: rest });
            }}
          >
            Send the original instead
          </Button>
        </>
      ) : (
        <div className="grid justify-items-start gap-2">
          <p className="text-soft">
            Whoever answers in {languageName(language)} gets the original, until this mail is written in it.
          </p>
          <Button onClick={() => put(written.mail)}>Begin from the original</Button>
        </div>
      )}
    </>
  );
}
