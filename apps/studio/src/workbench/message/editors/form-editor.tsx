import type { Field as FormField } from '@velarium/contract';
import { FIELD_KINDS, type FieldKind } from '@velarium/contract/values';
import { ArrowDown, ArrowUp, Trash2 } from 'lucide-react';
import { Button, IconButton } from '../../../ui/button.tsx';
import { Field } from '../../../ui/field.tsx';
import { Menu } from '../../../ui/menu.tsx';
import { Switch } from '../../../ui/switch.tsx';
import { TextArea } from '../../../ui/text-area.tsx';
import type { EditorProps } from '../use-message.ts';

const KIND_WORDS: Readonly<Record<FieldKind, string>> = {
  email: 'Mail address',
  name: 'Name',
  phone: 'Telephone',
  text: 'A line of text',
  long: 'Several lines',
  select: 'One of several',
  ticks: 'Any of several',
  date: 'Date',
  file: 'A picture',
  hidden: 'Hidden value',
};

export function FormEditor({ block, edit }: EditorProps<'form'>) {
  const setFields = (change: (fields: readonly FormField[]) => FormField[], part: string) =>
    edit((old) => ({ ...old, fields: change(old.fields) }), part);
  const setField = (id: string, change: Partial<FormField>, part: string) =>
    setFields(
      (fields) => fields.map((one) => (one.id === id ? { ...one, ...change } : one)),
      `${id}.${part}`,
    );
  const add = (kind: FieldKind) =>
    setFields((fields) => {
      const taken = new Set(fields.map(({ id }) => id));
      let id: string = kind;
      for (let n = 2; taken.has(id); n++) id = `${kind}-${n}`;
      return [
        ...fields,
        {
          id,
          kind,
          label: KIND_WORDS[kind],
          placeholder: '',
          required: false,
          ...(kind === 'select' || kind === 'ticks' ? { options: ['One', 'Another'] } : {}),
        },
      ];
    }, 'field.add');
  const move = (at: number, by: -1 | 1) =>
    setFields((fields) => {
      const next = [...fields];
      const [field] = next.splice(at, 1);
      if (field) next.splice(at + by, 0, field);
      return next;
    }, 'field.move');
  return (
    <>
      <ul className="grid gap-1" aria-label="Fields">
        {block.fields.map((field, at) => (
          <li key={field.id}>
            <details className="rounded border border-line bg-sheet">
              <summary className="flex h-8 items-center gap-2 px-2">
                <span className="min-w-0 flex-1 truncate">{field.label || KIND_WORDS[field.kind]}</span>
                <span className="text-xs text-soft">
                  {KIND_WORDS[field.kind]}
                  {field.required ? ', needed' : ''}
                </span>
              </summary>
              <div className="grid gap-2 border-t border-line p-2">
                <Field
                  label="Label"
                  value={field.label}
                  maxLength={120}
                  onChange={(event) => setField(field.id, { label: event.target.value }, 'label')}
                />
                {field.kind === 'hidden' ? (
                  <Field
                    label="Value"
                    value={field.value ?? ''}
                    maxLength={300}
                    onChange={(event) => setField(field.id, { value: event.target.value }, 'value')}
                  />
                ) : (
                  <>
                    {!['ticks', 'date', 'file'].includes(field.kind) && (
                      <Field
                        label={`Hint inside “${field.label}”`}
                        value={field.placeholder}
                        maxLength={120}
                        onChange={(event) =>
                          setField(field.id, { placeholder: event.target.value }, 'placeholder')
                        }
                      />
                    )}
                    {(field.kind === 'select' || field.kind === 'ticks') && (
                      <TextArea
                        label="To choose from, one a line"
                        value={(field.options ?? []).join('\n')}
                        onChange={(event) =>
                          setField(
                            field.id,
                            {
                              options: event.target.value
                                .split('\n')
                                .map((one) => one.slice(0, 120))
                                .slice(0, 40),
                            },
                            'options',
                          )
                        }
                        onBlur={() =>
                          setField(
                            field.id,
                            { options: (field.options ?? []).filter((one) => one.trim() !== '') },
                            'options',
                          )
                        }
                      />
                    )}
                    {(field.kind === 'text' || field.kind === 'long' || field.kind === 'phone') && (
                      <Field
                        label="Must fit this pattern"
                        value={field.pattern ?? ''}
                        maxLength={200}
                        placeholder="QF-\d{4}"
                        onChange={(event) => setField(field.id, { pattern: event.target.value }, 'pattern')}
                      />
                    )}
                    <Field
                      label="Words when it does not fit"
                      value={field.errorText ?? ''}
                      maxLength={200}
                      placeholder="Please check this."
                      onChange={(event) => setField(field.id, { errorText: event.target.value }, 'error')}
                    />
                    <Switch
                      label="Needed"
                      isOn={field.required}
                      onChange={(required) => setField(field.id, { required }, 'required')}
                    />
                    {at > 0 && (
                      <Switch
                        label="Beside the field before it"
                        isOn={field.beside === true}
                        onChange={(is) =>
                          setFields(
                            (fields) =>
                              fields.map((one) => {
                                if (one.id !== field.id) return one;
                                const { beside: _beside, ...rest } = one;
                                return is ? { ...rest, beside: true as const } : rest;
                              }),
                            `${field.id}.beside`,
                          )
                        }
                      />
                    )}
                  </>
                )}
                <div className="flex justify-end">
                  <IconButton label="Field up" disabled={at === 0} onClick={() => move(at, -1)}>
                    <ArrowUp size={13} aria-hidden />
                  </IconButton>
                  <IconButton
                    label="Field down"
                    disabled={at === block.fields.length - 1}
                    onClick={() => move(at, 1)}
                  >
                    <ArrowDown size={13} aria-hidden />
                  </IconButton>
                  <IconButton
                    label="Remove the field"
                    disabled={block.fields.length === 1}
                    onClick={() =>
                      setFields((fields) => fields.filter(({ id }) => id !== field.id), 'field.remove')
                    }
                  >
                    <Trash2 size={13} aria-hidden />
                  </IconButton>
                </div>
              </div>
            </details>
          </li>
        ))}
      </ul>
      <Menu items={FIELD_KINDS.map((kind) => ({ label: KIND_WORDS[kind], onSelect: () => add(kind) }))}>
        <Button className="justify-self-start">Add a field</Button>
      </Menu>
      <TextArea
        label="Words people agree to"
        value={block.consentText}
        maxLength={600}
        hint="Stored with each answer, word for word and with its time. Empty: nothing is asked."
        onChange={(event) => edit((old) => ({ ...old, consentText: event.target.value }), 'consent')}
      />
      <Field
        label="Words on the send button"
        value={block.submitLabel}
        maxLength={120}
        onChange={(event) => edit((old) => ({ ...old, submitLabel: event.target.value }), 'submit')}
      />
      <Switch
        label="A sum in words keeps robots out"
        isOn={block.asksSum}
        onChange={(asksSum) => edit((old) => ({ ...old, asksSum }), 'sum')}
      />
      <Switch
        label="The first field has the focus when it opens"
        hint="In a modal only: nothing else may take the focus from the page. On phones the keyboard opens with it."
        isOn={block.takesFocus === true}
        onChange={(takesFocus) => edit((old) => ({ ...old, takesFocus }), 'focus')}
      />
    </>
  );
}
