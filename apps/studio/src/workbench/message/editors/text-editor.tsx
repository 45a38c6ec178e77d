import { linkAddressSchema } from '@velarium/contract';
import { Bold, Italic, Link2, Type } from 'lucide-react';
import { useState } from 'react';
import { Button, IconButton } from '../../../ui/button.tsx';
import { Field } from '../../../ui/field.tsx';
import { Popover } from '../../../ui/popover.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { Select } from '../../../ui/select.tsx';
import { TextArea } from '../../../ui/text-area.tsx';
import { markChosenWords } from '../../stage/mark-words.ts';
import { Swatch } from '../colour-field.tsx';
import { PersonalHint } from '../personal-hint.tsx';
import type { EditorProps } from '../use-message.ts';
import { usePalette } from '../use-message.ts';
import { AddressField } from './address-field.tsx';

export function HeadingEditor({ block, edit }: EditorProps<'heading'>) {
  return (
    <>
      <TextArea
        label="Words"
        value={block.text}
        maxLength={300}
        rows={2}
        onChange={(event) =>
          edit((old) => ({ ...old, text: event.target.value.replace(/\n/g, ' ') }), 'words')
        }
      />
      <PersonalHint />
      <AddressField
        label="Leads to"
        address={block.link?.address ?? ''}
        hint="Empty: it leads nowhere."
        onChange={(address) =>
          edit(({ link, ...old }) => {
            if (address === '') return old;
            return { ...old, link: { address, isHere: link?.isHere ?? false } };
          }, 'link')
        }
      />
      {block.link && (
        <OpensIn
          isHere={block.link.isHere}
          onChange={(isHere) =>
            edit((old) => (old.link ? { ...old, link: { ...old.link, isHere } } : old), 'here')
          }
        />
      )}
    </>
  );
}

const SPAN_COLOURS = ['ink', 'soft', 'accent'] as const;

export function TextEditor({ block, edit }: EditorProps<'text'>) {
  const palette = usePalette();
  // The words chosen on the stage must stay chosen while a button here is pressed.
  const keep = { onMouseDown: (event: React.MouseEvent) => event.preventDefault() };
  return (
    <>
      <div>
        <span className="mb-1 block text-xs">Words chosen on the stage</span>
        <div
          role="toolbar"
          aria-label="Words chosen on the stage"
          className="flex items-center gap-0.5 rounded border border-line bg-sheet p-0.5"
        >
          <IconButton label="Bold (Ctrl + B)" {...keep} onClick={() => markChosenWords({ kind: 'bold' })}>
            <Bold size={14} aria-hidden />
          </IconButton>
          <IconButton label="Italic (Ctrl + I)" {...keep} onClick={() => markChosenWords({ kind: 'italic' })}>
            <Italic size={14} aria-hidden />
          </IconButton>
          <LinkWords />
          <IconButton
            label="Smaller"
            {...keep}
            onClick={() => markChosenWords({ kind: 'size', size: 'small' })}
          >
            <Type size={11} aria-hidden />
          </IconButton>
          <IconButton
            label="Larger"
            {...keep}
            onClick={() => markChosenWords({ kind: 'size', size: 'large' })}
          >
            <Type size={16} aria-hidden />
          </IconButton>
          <span className="mx-1 h-4 w-px bg-line" />
          {SPAN_COLOURS.map((role) => (
            <IconButton
              key={role}
              label={`Colour: ${role}`}
              {...keep}
              onClick={() => markChosenWords({ kind: 'colour', colour: role })}
            >
              <Swatch colour={palette[role]} />
            </IconButton>
          ))}
          <button
            type="button"
            {...keep}
            onClick={() => markChosenWords({ kind: 'plain' })}
            className="ml-auto h-7 rounded px-2 text-xs hover:bg-sail-wash"
          >
            Plain
          </button>
        </div>
      </div>
      <div className="grid grid-cols-2 gap-2">
        <Segments
          label="Size"
          value={block.size}
          onChange={(size) => edit((old) => ({ ...old, size }), 'size')}
          options={[
            { value: 'body', label: 'Text' },
            { value: 'small', label: 'Small print' },
          ]}
        />
        <Select
          label="Each line begins with"
          value={block.marks}
          options={[
            { value: 'none', label: 'Nothing' },
            { value: 'dot', label: 'A dot' },
            { value: 'tick', label: 'A tick' },
            { value: 'number', label: 'A number' },
          ]}
          onChange={(marks) => edit((old) => ({ ...old, marks }), 'marks')}
        />
      </div>
      <PersonalHint />
    </>
  );
}

/** Makes the words that are chosen a link. */
export function LinkWords() {
  const [isOpen, setOpen] = useState(false);
  const [address, setAddress] = useState('');
  const [isHere, setHere] = useState(false);
  const [hasNoWords, setNoWords] = useState(false);
  const isRight = linkAddressSchema.safeParse(address).success && address !== '';
  return (
    <Popover
      label="Link for the chosen words"
      isOpen={isOpen}
      onOpenChange={(next) => {
        setOpen(next);
        setNoWords(false);
      }}
      trigger={
        <IconButton label="Link" onMouseDown={(event) => event.preventDefault()}>
          <Link2 size={14} aria-hidden />
        </IconButton>
      }
    >
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!isRight) return;
          const isDone = markChosenWords({ kind: 'link', address, isHere });
          setNoWords(!isDone);
          setOpen(!isDone);
        }}
      >
        <Field
          label="Address the chosen words lead to"
          value={address}
          placeholder="/night-tours or https://…"
          onChange={(event) => setAddress(event.target.value.trim())}
          error={
            address === '' || isRight ? undefined : 'Start with https://, mailto:, tel: or /, without spaces.'
          }
        />
        <OpensIn isHere={isHere} onChange={setHere} />
        {hasNoWords && (
          <p role="alert" className="text-halt">
            No words are chosen. Mark some in a text on the stage, then link them.
          </p>
        )}
        <Button type="submit" disabled={!isRight}>
          Link them
        </Button>
      </form>
    </Popover>
  );
}

interface OpensInProps {
  readonly isHere: boolean;
  readonly onChange: (isHere: boolean) => void;
}

const OpensIn = ({ isHere, onChange }: OpensInProps) => (
  <Segments
    label="It opens in"
    value={isHere ? 'here' : 'new'}
    onChange={(next) => onChange(next === 'here')}
    options={[
      { value: 'new', label: 'A new tab' },
      { value: 'here', label: 'The same tab' },
    ]}
  />
);
