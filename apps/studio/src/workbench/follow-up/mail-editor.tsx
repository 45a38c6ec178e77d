import type { BlockOf, MailDraft } from '@velarium/contract';
import { writingDirection } from '@velarium/core';
import { Field } from '../../ui/field.tsx';
import { Switch } from '../../ui/switch.tsx';
import { tell } from '../../ui/toast.tsx';
import { PictureField } from '../message/picture-field.tsx';
import { RichTextField } from './rich-text-field.tsx';

interface MailEditorProps {
  readonly mail: MailDraft;
  readonly onChange: (mail: MailDraft) => void;
  readonly fields: BlockOf<'form'>['fields'];
  /** Its button confirms, and is always there. */
  readonly isConfirmation: boolean;
  readonly faultOf: (path: string) => string | undefined;
  /** What its words are in; undefined where the message has one language. */
  readonly language: string | undefined;
}

/** The words of one mail. */
export function MailEditor({ mail, onChange, fields, isConfirmation, faultOf, language }: MailEditorProps) {
  const set = (change: Partial<MailDraft>) => onChange({ ...mail, ...change });
  const places = fields.filter(({ kind }) => kind !== 'file').map(({ id }) => `{{answer.${id}|…}}`);
  // Of the words alone: what stands beside them is the studio's.
  const writing = language === undefined ? {} : { lang: language, dir: writingDirection(language) };
  return (
    <div className="grid gap-3">
      <Field
        label="Subject"
        {...writing}
        value={mail.subject}
        maxLength={200}
        error={faultOf('subject')}
        onChange={(event) => set({ subject: event.target.value })}
      />
      <Field
        label="Line beside it in the list of mails"
        {...writing}
        value={mail.preview}
        maxLength={200}
        onChange={(event) => set({ preview: event.target.value })}
      />
      <Field
        label="Heading"
        {...writing}
        value={mail.heading}
        maxLength={200}
        onChange={(event) => set({ heading: event.target.value })}
      />
      <RichTextField label="Text" {...writing} value={mail.text} onChange={(text) => set({ text })} />
      <p className="text-xs text-soft">
        Words that follow the answer: {places.join(' ')}. What stands after the stroke is read where nothing
        was answered.
      </p>
      <PictureField
        canBeNone
        value={mail.picture?.id ?? null}
        onChange={(id, alt) => {
          // Most mail programs show no drawings.
          if (id?.startsWith('drawn:'))
            tell('Mail programs show photographs only. Choose one of your own pictures.');
          else set({ picture: id === null ? null : { id, alt: alt ?? mail.picture?.alt ?? '' } });
        }}
      />
      {mail.picture && (
        <Field
          label="What the picture shows"
          {...writing}
          value={mail.picture.alt}
          maxLength={300}
          onChange={(event) => mail.picture && set({ picture: { ...mail.picture, alt: event.target.value } })}
        />
      )}
      {!isConfirmation && (
        <Switch
          label="A button"
          isOn={mail.button !== null}
          onChange={(is) => set({ button: is ? { label: 'Read on', address: 'https://' } : null })}
        />
      )}
      {!isConfirmation && mail.button && (
        <div className="grid grid-cols-2 gap-2">
          <Field
            label="Words on the button"
            {...writing}
            value={mail.button.label}
            maxLength={80}
            error={faultOf('button.label')}
            onChange={(event) =>
              mail.button && set({ button: { ...mail.button, label: event.target.value } })
            }
          />
          <Field
            label="Where it leads"
            value={mail.button.address}
            maxLength={2048}
            error={faultOf('button.address')}
            onChange={(event) =>
              mail.button && set({ button: { ...mail.button, address: event.target.value.trim() } })
            }
          />
        </div>
      )}
    </div>
  );
}
