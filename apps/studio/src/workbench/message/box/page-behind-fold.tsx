import { Fold } from '../../../ui/fold.tsx';
import { Switch } from '../../../ui/switch.tsx';
import { useWorkbench } from '../../store.ts';
import { ColourField } from '../colour-field.tsx';
import { Said, StyleNumber } from '../style-fold.tsx';
import { useEditMessage } from '../use-message.ts';
import { useBoxStyling } from './use-box-styling.ts';

export function PageBehindFold() {
  const edit = useEditMessage();
  const message = useWorkbench((state) => state.document.message);
  const styling = useBoxStyling();
  const { format, anchor } = message;
  const isModal = format === 'modal' || format === 'fullscreen';
  if (!isModal && format !== 'bar') return null;
  return (
    <Fold title="The page behind">
      {isModal && (
        <>
          <Switch
            label="Can be scrolled"
            isOn={!message.holdsPage}
            onChange={(can) => edit({ holdsPage: !can }, 'holdsPage')}
          />
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
          <Switch
            label="Makes room for it"
            hint="Before the page is painted, or at the visitor’s first touch: nothing ever jumps."
            isOn={message.pushesPage}
            onChange={(pushesPage) => edit({ pushesPage }, 'pushesPage')}
          />
          {anchor === 'top' && (
            <Switch
              label="Stays in sight while the page is scrolled"
              isOn={message.isSticky}
              onChange={(isSticky) => edit({ isSticky }, 'isSticky')}
            />
          )}
        </>
      )}
    </Fold>
  );
}
