import { capital } from '@velarium/core';
import { Field } from '../../../ui/field.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { Switch } from '../../../ui/switch.tsx';
import { useWorkbench } from '../../store.ts';
import { FocusField, PictureField } from '../picture-field.tsx';
import { Said } from '../style/said.tsx';
import { ScopeChoice } from '../style/scope-choice.tsx';
import { useStyling } from '../style/use-styling.ts';
import { type EditorProps, useSides } from '../use-message.ts';
import { AddressField } from './address-field.tsx';

export function PictureEditor({ block, edit }: EditorProps<'picture'>) {
  const styling = useStyling(block.style, { side: 'flow' }, (change, part) =>
    edit((old) => ({ ...old, style: change(old.style) }), `style.${part}`),
  );
  const scope = useWorkbench((state) => state.scope);
  const sides = useSides();
  return (
    <>
      <PictureField
        value={block.picture}
        onChange={(picture, alt) =>
          // What is said of one picture is not true of another.
          edit(
            (old) => ({ ...old, picture, alt: alt ?? (picture === old.picture ? old.alt : '') }),
            'picture',
          )
        }
      />
      {!block.isDecoration && (
        <Field
          label="What it shows"
          value={block.alt}
          maxLength={300}
          hint="Read to those who cannot see it."
          onChange={(event) => edit((old) => ({ ...old, alt: event.target.value }), 'alt')}
        />
      )}
      <Switch
        label="It only decorates"
        isOn={block.isDecoration}
        onChange={(isDecoration) => edit((old) => ({ ...old, isDecoration }), 'decoration')}
      />
      <ScopeChoice />
      <Said styling={styling} of={['side']}>
        <Segments
          label={scope === 'all' ? 'Stands' : `Stands, on a ${scope === 'mobile' ? 'phone' : 'tablet'}`}
          value={styling.said.side ?? styling.below.side}
          onChange={(side) => styling.set('side', side)}
          options={[
            { value: 'flow', label: 'In line' },
            { value: 'top', label: 'Top' },
            { value: 'start', label: capital(sides.start) },
            { value: 'end', label: capital(sides.end) },
            { value: 'bottom', label: 'Foot' },
            { value: 'behind', label: 'Behind' },
          ]}
        />
      </Said>
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label="Width to height"
          unit="%"
          value={block.ratio ?? undefined}
          placeholder="its own"
          min={20}
          max={500}
          step={5}
          onChange={(ratio) => edit((old) => ({ ...old, ratio }), 'ratio')}
        />
        {block.ratio !== null && (
          <button
            type="button"
            className="h-8 self-end rounded text-left underline-offset-4 hover:underline"
            onClick={() => edit((old) => ({ ...old, ratio: null }), 'ratio')}
          >
            Its own shape
          </button>
        )}
      </div>
      {block.picture && (
        <FocusField
          picture={block.picture}
          value={block.focus}
          onChange={(focus) => edit((old) => ({ ...old, focus }), 'focus')}
        />
      )}
      <AddressField
        label="Leads to"
        address={block.address}
        hint="Empty: it leads nowhere."
        onChange={(address) => edit((old) => ({ ...old, address }), 'address')}
      />
    </>
  );
}
