import { SHADOWS } from '@velarium/contract/values';
import { readOwnCss } from '@velarium/core';
import { AlignCenter, AlignLeft, AlignRight } from 'lucide-react';
import { CheckedField } from '../../../ui/checked-field.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { Select } from '../../../ui/select.tsx';
import { ColourField } from '../colour-field.tsx';
import { useSides } from '../use-message.ts';
import { Said } from './said.tsx';
import { StyleNumber } from './style-lengths.tsx';
import type { Styling } from './use-styling.ts';

export function StyleAlign({ styling }: { styling: Styling }) {
  const sides = useSides();
  return (
    <Said styling={styling} of={['align']}>
      <Segments
        label="Alignment"
        value={styling.said.align ?? styling.below.align}
        onChange={(align) => styling.set('align', align)}
        options={[
          {
            value: 'start',
            label: `To the ${sides.start}`,
            sign: sides.start === 'left' ? <AlignLeft size={14} /> : <AlignRight size={14} />,
          },
          { value: 'center', label: 'Centred', sign: <AlignCenter size={14} /> },
          {
            value: 'end',
            label: `To the ${sides.end}`,
            sign: sides.end === 'left' ? <AlignLeft size={14} /> : <AlignRight size={14} />,
          },
        ]}
      />
    </Said>
  );
}

const SHADOW_WORDS = { none: 'None', hair: 'A hairline', lifted: 'Lifted', floating: 'Floating' } as const;

function StyleShadow({ styling }: { styling: Styling }) {
  return (
    <Said styling={styling} of={['shadow']}>
      <Select
        label="Shadow"
        value={styling.said.shadow ?? styling.below.shadow ?? 'none'}
        options={SHADOWS.map((value) => ({ value, label: SHADOW_WORDS[value] }))}
        onChange={(shadow) => styling.set('shadow', shadow)}
      />
    </Said>
  );
}

export function StyleEdges({ styling }: { styling: Styling }) {
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <StyleNumber styling={styling} of="corners" label="Corners" />
        <StyleNumber styling={styling} of="borderWidth" label="Border width" />
      </div>
      <Said styling={styling} of={['borderColour']}>
        <ColourField
          label="Border colour"
          value={styling.said.borderColour}
          fallback={styling.below.borderColour ?? 'line'}
          onChange={(colour) => styling.set('borderColour', colour)}
        />
      </Said>
      <StyleShadow styling={styling} />
    </>
  );
}

/** CSS of one's own for what no field sets; what is refused is said, and the last that was right holds. */
export function StyleOwn({ styling }: { styling: Styling }) {
  return (
    <Said styling={styling} of={['own']}>
      <CheckedField
        label="CSS of your own"
        value={styling.said.own ?? styling.below.own ?? ''}
        faultOf={(text) => readOwnCss(text).fault}
        onChange={(own) => styling.set('own', own)}
      />
    </Said>
  );
}
