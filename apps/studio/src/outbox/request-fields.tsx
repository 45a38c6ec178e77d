import type { SaveConnection } from '@velarium/contract';
import { Plus, Trash2 } from 'lucide-react';
import { Button, IconButton } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Segments } from '../ui/segments.tsx';

type RequestSettings = Extract<SaveConnection, { kind: 'request' }>;

interface RequestFieldsProps {
  readonly settings: RequestSettings;
  readonly set: (change: Partial<RequestSettings>) => void;
  readonly faultOf: (path: string) => string | undefined;
}

/** How a request shaped by hand looks: method, headers, and which answer goes under which name. */
export function RequestFields({ settings, set, faultOf }: RequestFieldsProps) {
  const { method, body, headers, names } = settings;
  const change = <Item,>(list: readonly Item[], at: number, to: Partial<Item>) =>
    list.map((one, n) => (n === at ? { ...one, ...to } : one));
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <Segments
          label="Method"
          value={method}
          options={(['POST', 'PUT', 'PATCH'] as const).map((value) => ({ value, label: value }))}
          onChange={(value) => set({ method: value })}
        />
        <Segments
          label="Body"
          value={body}
          options={[
            { value: 'json', label: 'JSON' },
            { value: 'form', label: 'As a form' },
          ]}
          onChange={(value) => set({ body: value })}
        />
      </div>
      <fieldset className="grid gap-2">
        <legend className="mb-1 font-medium">Which answer goes under which name</legend>
        <datalist id="velarium-answer-names">
          {['mail', 'email', 'name', 'question', 'page', 'campaign', 'time', 'event', 'id'].map((name) => (
            <option key={name} value={name} />
          ))}
        </datalist>
        {names.map(({ from, to }, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a row is known by its place
          <div key={at} className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
            <Field
              label="Answer: a field’s label or id"
              list="velarium-answer-names"
              value={from}
              maxLength={120}
              error={faultOf(`names.${at}.from`)}
              onChange={(event) => set({ names: change(names, at, { from: event.target.value }) })}
            />
            <Field
              label="Name there"
              value={to}
              maxLength={120}
              error={faultOf(`names.${at}.to`)}
              onChange={(event) => set({ names: change(names, at, { to: event.target.value }) })}
            />
            <IconButton
              label={`Remove ${to || 'this name'}`}
              onClick={() => set({ names: names.filter((_one, n) => n !== at) })}
            >
              <Trash2 size={14} aria-hidden />
            </IconButton>
          </div>
        ))}
        <Button
          className="justify-self-start"
          onClick={() => set({ names: [...names, { from: '', to: '' }] })}
        >
          <Plus size={14} aria-hidden /> Another answer
        </Button>
      </fieldset>
      <fieldset className="grid gap-2">
        <legend className="mb-1 font-medium">Headers</legend>
        {headers.map(({ name, value, isSecret }, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a row is known by its place
          <div key={at} className="grid grid-cols-[1fr_1fr_auto_auto] items-end gap-2">
            <Field
              label="Header"
              value={name}
              maxLength={120}
              spellCheck={false}
              error={faultOf(`headers.${at}.name`)}
              onChange={(event) => set({ headers: change(headers, at, { name: event.target.value.trim() }) })}
            />
            <Field
              label="Value"
              type={isSecret ? 'password' : 'text'}
              autoComplete="off"
              placeholder={isSecret && value === null ? 'kept as it is' : ''}
              value={value ?? ''}
              maxLength={2000}
              error={faultOf(`headers.${at}.value`)}
              onChange={(event) => set({ headers: change(headers, at, { value: event.target.value }) })}
            />
            <label className="flex h-8 items-center gap-1.5">
              <input
                type="checkbox"
                className="accent-sail"
                checked={isSecret}
                onChange={() =>
                  set({ headers: change(headers, at, { isSecret: !isSecret, value: value ?? '' }) })
                }
              />
              Secret
            </label>
            <IconButton
              label={`Remove ${name || 'this header'}`}
              onClick={() => set({ headers: headers.filter((_one, n) => n !== at) })}
            >
              <Trash2 size={14} aria-hidden />
            </IconButton>
          </div>
        ))}
        <Button
          className="justify-self-start"
          onClick={() => set({ headers: [...headers, { name: '', value: '', isSecret: false }] })}
        >
          <Plus size={14} aria-hidden /> A header
        </Button>
      </fieldset>
    </>
  );
}
