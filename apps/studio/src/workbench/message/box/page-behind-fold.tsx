import { isInterrupting, placedOn } from '@velarium/core';
import { useWorkbench } from '../../store.ts';
import { ColourField } from '../colour-field.tsx';
import { PlacedSwitch } from '../style/placed-switch.tsx';
import { Said } from '../style/said.tsx';
import { ScopedFold } from '../style/scope-choice.tsx';
import { StyleNumber } from '../style/style-lengths.tsx';
import { useBoxStyling } from './use-box-styling.ts';

/** What the page behind the box can still do, for all devices or for one. */
export function PageBehindFold() {
  const message = useWorkbench((state) => state.document.message);
  const styling = useBoxStyling();
  const { format } = message;
  if (!isInterrupting(format) && format !== 'bar') return null;
  const anchor = placedOn(message, 'anchor', styling.scope === 'all' ? 'desktop' : styling.scope);
  return (
    <ScopedFold title="The page behind">
      {isInterrupting(format) && (
        <>
          <PlacedSwitch styling={styling} of="holdsPage" isOpposite label="Can be scrolled" />
          {format === 'modal' && (
            <PlacedSwitch styling={styling} of="backdropCloses" label="A click on it closes the message" />
          )}
          <Said styling={styling} of={['backdropColour']}>
            <ColourField
              label="Backdrop"
              value={styling.said.backdropColour}
              fallback={styling.below.backdropColour ?? 'backdrop'}
              onChange={(colour) => styling.set('backdropColour', colour)}
            />
          </Said>
          <div className="grid grid-cols-2 gap-2">
            <StyleNumber styling={styling} of="backdropStrength" label="Strength" unit="%" />
            <StyleNumber styling={styling} of="backdropBlur" label="Blur" />
          </div>
        </>
      )}
      {format === 'bar' && (
        <>
          <PlacedSwitch
            styling={styling}
            of="pushesPage"
            label="Makes room for it"
            hint="Before the page is painted, or at the visitor’s first touch: nothing ever jumps."
          />
          {anchor === 'top' && (
            <PlacedSwitch styling={styling} of="isSticky" label="Stays in sight while the page is scrolled" />
          )}
        </>
      )}
    </ScopedFold>
  );
}
