import { SHARE_WAYS } from '@velarium/contract';
import { Trash2 } from 'lucide-react';
import { Button, IconButton } from '../../../ui/button.tsx';
import { Field } from '../../../ui/field.tsx';
import { Menu } from '../../../ui/menu.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { Switch } from '../../../ui/switch.tsx';
import type { EditorProps } from '../use-message.ts';
import { AddressField } from './address-field.tsx';

type Way = (typeof SHARE_WAYS)[number];
const WAY_WORDS: Readonly<Record<Way, string>> = {
  system: 'The share sheet of the system',
  mail: 'By mail',
  copy: 'Copy the link',
  address: 'An address of your own',
};
const LABELS: Readonly<Record<Way, string>> = {
  system: 'Share',
  mail: 'By mail',
  copy: 'Copy the link',
  address: 'Pass it on',
};

export function ShareEditor({ block, edit }: EditorProps<'share'>) {
  const add = (way: Way) =>
    edit((old) => {
      let id: string = way;
      for (let n = 2; old.ways.some((one) => one.id === id); n++) id = `${way}-${n}`;
      return { ...old, ways: [...old.ways, { id, way, label: LABELS[way], address: '' }] };
    }, 'way.add');
  return (
    <>
      <ul className="grid gap-2" aria-label="Ways to share">
        {block.ways.map((way) => {
          const set = (change: Partial<typeof way>, part: string) =>
            edit(
              (old) => ({
                ...old,
                ways: old.ways.map((one) => (one.id === way.id ? { ...one, ...change } : one)),
              }),
              `${way.id}.${part}`,
            );
          return (
            <li key={way.id} className="grid gap-1.5">
              <div className="grid grid-cols-[1fr_auto] items-end gap-1">
                <Field
                  label={WAY_WORDS[way.way]}
                  value={way.label}
                  maxLength={60}
                  onChange={(event) => set({ label: event.target.value }, 'label')}
                />
                <IconButton
                  label={`Remove: ${way.label}`}
                  disabled={block.ways.length === 1}
                  onClick={() =>
                    edit(
                      (old) => ({ ...old, ways: old.ways.filter(({ id }) => id !== way.id) }),
                      'way.remove',
                    )
                  }
                >
                  <Trash2 size={14} aria-hidden />
                </IconButton>
              </div>
              {way.way === 'address' && (
                <AddressField
                  label="Its address"
                  address={way.address}
                  hint="{{page.address}} and {{page.title}} are filled in."
                  onChange={(address) => set({ address }, 'address')}
                />
              )}
            </li>
          );
        })}
      </ul>
      <Menu items={SHARE_WAYS.map((way) => ({ label: WAY_WORDS[way], onSelect: () => add(way) }))}>
        <Button className="justify-self-start">Add a way</Button>
      </Menu>
      <Segments
        label="Columns"
        value={String(block.columns)}
        onChange={(columns) => edit((old) => ({ ...old, columns: Number(columns) }), 'columns')}
        options={['1', '2', '3'].map((value) => ({ value, label: value }))}
      />
      <Segments
        label="Shape"
        value={block.shape}
        onChange={(shape) => edit((old) => ({ ...old, shape }), 'shape')}
        options={[
          { value: 'round', label: 'Round' },
          { value: 'rounded', label: 'Rounded' },
          { value: 'square', label: 'Square' },
        ]}
      />
      <Segments
        label="Shows"
        value={block.shows}
        onChange={(shows) => edit((old) => ({ ...old, shows }), 'shows')}
        options={[
          { value: 'both', label: 'Both' },
          { value: 'words', label: 'Only words' },
          { value: 'sign', label: 'Only signs' },
        ]}
      />
      <Switch
        label="Gaps between them"
        isOn={block.hasGaps}
        onChange={(hasGaps) => edit((old) => ({ ...old, hasGaps }), 'gaps')}
      />
      <Switch
        label="Each says how often it was used"
        hint="Counted on this campaign. A way that nobody has used says nothing."
        isOn={block.hasCounts}
        onChange={(hasCounts) => edit((old) => ({ ...old, hasCounts }), 'counts')}
      />
    </>
  );
}

export function CodeEditor({ block, edit }: EditorProps<'code'>) {
  return (
    <>
      <Field
        label="Code"
        value={block.code}
        maxLength={60}
        onChange={(event) => edit((old) => ({ ...old, code: event.target.value }), 'code')}
      />
      <div className="grid grid-cols-2 gap-2">
        <Field
          label="Button"
          value={block.copyLabel}
          maxLength={60}
          onChange={(event) => edit((old) => ({ ...old, copyLabel: event.target.value }), 'copy')}
        />
        <Field
          label="Once copied"
          value={block.copiedLabel}
          maxLength={60}
          onChange={(event) => edit((old) => ({ ...old, copiedLabel: event.target.value }), 'copied')}
        />
      </div>
    </>
  );
}
