import type { Block, Message } from '@velarium/contract';
import { linkAddressSchema } from '@velarium/contract';
import { changeBlock } from '@velarium/core';
import { useEffect, useState } from 'react';
import { Field } from '../../ui/field.tsx';
import { Switch } from '../../ui/switch.tsx';
import { useWorkbench, useWorkbenchStore } from '../store.ts';
import { Choice } from './choice.tsx';

const findBlock = (message: Message, id: string | null) =>
  message.steps.flatMap((step) => step.blocks).find((block) => block.id === id);

/** What can be set on the block chosen on the stage, beside its words. */
export function BlockControl() {
  const { editMessage } = useWorkbenchStore().getState();
  const block = useWorkbench((state) => findBlock(state.document.message, state.selectedBlock));
  if (!block) {
    return (
      <p className="text-sm text-soft">
        Click any words on the stage and type. What else can be set on them shows here.
      </p>
    );
  }
  const edit = (change: (block: Block) => Block, part: string) =>
    editMessage((message) => changeBlock(message, block.id, change), `${block.id}.${part}`);
  switch (block.kind) {
    case 'heading':
      return (
        <Field
          label="Heading"
          value={block.text}
          maxLength={300}
          onChange={(e) => edit((b) => ({ ...b, text: e.target.value }) as Block, 'words')}
        />
      );
    case 'text':
      return (
        <Choice
          label="Size of this text"
          value={block.size}
          onChange={(size) => edit((b) => ({ ...b, size }) as Block, 'size')}
          options={[
            { value: 'body', label: 'Text' },
            { value: 'small', label: 'Small print' },
          ]}
        />
      );
    case 'button':
      return <ButtonControl block={block} onChange={edit} />;
    case 'form':
      return (
        <div className="grid gap-2">
          {block.fields.map((field) => (
            <Field
              key={field.id}
              label={`Hint inside “${field.label}”`}
              value={field.placeholder}
              maxLength={120}
              onChange={(e) =>
                edit(
                  (b) =>
                    b.kind === 'form'
                      ? {
                          ...b,
                          fields: b.fields.map((f) =>
                            f.id === field.id ? { ...f, placeholder: e.target.value } : f,
                          ),
                        }
                      : b,
                  `placeholder.${field.id}`,
                )
              }
            />
          ))}
          <p className="text-xs text-soft">
            The consent people tick is stored with each answer, word for word and with its time.
          </p>
        </div>
      );
  }
}

interface ButtonControlProps {
  readonly block: Extract<Block, { kind: 'button' }>;
  readonly onChange: (change: (block: Block) => Block, part: string) => void;
}

function ButtonControl({ block, onChange }: ButtonControlProps) {
  const { action } = block;
  const address = action.kind === 'link' ? action.address : '';
  const [text, setText] = useState(address);
  useEffect(() => setText(address), [address]);
  const isRight = linkAddressSchema.safeParse(text).success;
  const setAction = (next: typeof action, part: string) =>
    onChange((b) => ({ ...b, action: next }) as Block, part);
  return (
    <div className="grid gap-3">
      <Field
        label="Words on the button"
        value={block.label}
        maxLength={120}
        onChange={(e) => onChange((b) => ({ ...b, label: e.target.value }) as Block, 'words')}
      />
      <Choice
        label="When pressed"
        value={action.kind}
        onChange={(kind) =>
          setAction(kind === 'close' ? { kind } : { kind, address: '', newTab: false }, 'action')
        }
        options={[
          { value: 'link', label: 'Leads to an address' },
          { value: 'close', label: 'Closes the message' },
        ]}
      />
      {action.kind === 'link' && (
        <>
          <Field
            label="Address"
            value={text}
            placeholder="/night-tours or https://…"
            onChange={(e) => {
              const next = e.target.value.trim();
              setText(next);
              if (linkAddressSchema.safeParse(next).success)
                setAction({ ...action, address: next }, 'address');
            }}
            error={isRight ? undefined : 'Start with https://, mailto:, tel: or /, without spaces.'}
            hint="Without an address the button only closes."
          />
          <Switch
            label="Opens in a new tab"
            isOn={action.newTab}
            onChange={(newTab) => setAction({ ...action, newTab }, 'tab')}
          />
        </>
      )}
    </div>
  );
}
