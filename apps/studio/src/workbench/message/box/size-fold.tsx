import { Select } from '../../../ui/select.tsx';
import { AnchorGrid } from '../../controls/place-control.tsx';
import { useWorkbench, useWorkbenchStore } from '../../store.ts';
import { Said } from '../style/said.tsx';
import { SCOPE_WORDS, ScopedFold } from '../style/scope-choice.tsx';
import { StyleNumber, StyleSize } from '../style/style-lengths.tsx';
import { StyleAlign } from '../style/style-surface.tsx';
import { useBoxStyling } from './use-box-styling.ts';

const overriddenOn = (style: { tablet: object; mobile: object }) =>
  (['tablet', 'mobile'] as const)
    .filter((device) => Object.keys(style[device]).length > 0)
    .map((device) => SCOPE_WORDS[device].toLowerCase());

export function SizeFold() {
  const styling = useBoxStyling();
  const { editMessage } = useWorkbenchStore().getState();
  const direction = useWorkbench((state) => state.document.message.direction);
  const format = useWorkbench((state) => state.document.message.format);
  const anchor = useWorkbench((state) => state.document.message.anchor);
  const overrides = overriddenOn(useWorkbench((state) => state.document.message.style));
  return (
    <ScopedFold
      title="Size and spacing"
      note={overrides.length > 0 ? `differs on ${overrides.join(' and ')}` : undefined}
    >
      {styling.scope !== 'all' && format !== 'fullscreen' && (
        <Said styling={styling} of={['anchor']}>
          <AnchorGrid
            legend={`Place on a ${SCOPE_WORDS[styling.scope].toLowerCase()}`}
            format={format}
            value={styling.said.anchor ?? anchor}
            onChange={(next) => styling.set('anchor', next)}
          />
        </Said>
      )}
      {format !== 'fullscreen' && <StyleSize styling={styling} of="width" label="Width" />}
      <StyleSize styling={styling} of="height" label="Height" />
      <div className="grid grid-cols-2 gap-2">
        <StyleNumber styling={styling} of="leastWidth" label="Never narrower than" />
        <StyleNumber styling={styling} of="mostWidth" label="Never wider than" />
        <StyleNumber styling={styling} of="leastHeight" label="Never lower than" />
        <StyleNumber styling={styling} of="mostHeight" label="Never higher than" />
        <StyleNumber styling={styling} of="offsetBlock" label="From the edge ↕" />
        <StyleNumber styling={styling} of="offsetInline" label="From the edge ↔" />
        <StyleNumber styling={styling} of="paddingBlock" label="Padding ↕" />
        <StyleNumber styling={styling} of="paddingInline" label="Padding ↔" />
        <StyleNumber styling={styling} of="space" label="Space between blocks" />
        <StyleNumber styling={styling} of="textSize" label="Text size" />
      </div>
      <StyleAlign styling={styling} />
      <Select
        label="Texts run"
        value={direction ?? 'page'}
        options={[
          { value: 'page', label: 'As the page’s do' },
          { value: 'ltr', label: 'Left to right' },
          { value: 'rtl', label: 'Right to left' },
        ]}
        onChange={(next) =>
          editMessage(
            ({ direction: _before, ...message }) =>
              next === 'page' ? message : { ...message, direction: next },
            'direction',
          )
        }
      />
    </ScopedFold>
  );
}
