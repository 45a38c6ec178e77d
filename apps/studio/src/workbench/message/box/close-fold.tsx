import type { Close } from '@velarium/contract';
import { LIMITS } from '@velarium/contract/values';
import { capital } from '@velarium/core';
import { Field } from '../../../ui/field.tsx';
import { Fold } from '../../../ui/fold.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { Switch } from '../../../ui/switch.tsx';
import { useWorkbench } from '../../store.ts';
import { ColourField } from '../colour-field.tsx';
import { PictureField } from '../picture-field.tsx';
import { useEditMessage, useSides } from '../use-message.ts';

const CLOSE_PLACE = { inside: 'Inside', edge: 'On the edge', outside: 'Outside', hidden: 'None' } as const;

export function CloseFold() {
  const edit = useEditMessage();
  const sides = useSides();
  const close = useWorkbench((state) => state.document.message.close);
  const set = (change: Partial<Close>) =>
    edit({ close: { ...close, ...change } }, `close.${Object.keys(change)[0]}`);
  return (
    <Fold
      title="Way out"
      note={
        close.place === 'hidden'
          ? 'no button'
          : close.delaySeconds > 0
            ? `${close.delaySeconds} s late`
            : CLOSE_PLACE[close.place].toLowerCase()
      }
    >
      <Segments
        label="Close button"
        value={close.place}
        onChange={(place) => set({ place })}
        options={(['inside', 'edge', 'outside', 'hidden'] as const).map((value) => ({
          value,
          label: CLOSE_PLACE[value],
        }))}
      />
      {close.place !== 'hidden' && (
        <>
          <div className="grid gap-2">
            <Segments
              label="Corner"
              value={close.corner}
              onChange={(corner) => set({ corner })}
              options={[
                { value: 'start', label: capital(sides.start) },
                { value: 'end', label: capital(sides.end) },
              ]}
            />
            <Segments
              label="Shows"
              value={close.sign}
              onChange={(sign) => set({ sign })}
              options={[
                { value: 'cross', label: 'A sign' },
                { value: 'word', label: 'A word' },
                { value: 'picture', label: 'A picture' },
              ]}
            />
          </div>
          {close.sign === 'picture' && (
            <PictureField value={close.picture} onChange={(picture) => set({ picture })} />
          )}
          {close.sign !== 'cross' && (
            <Field
              label={close.sign === 'word' ? 'Word' : 'Read out as'}
              value={close.word}
              maxLength={40}
              onChange={(event) => set({ word: event.target.value })}
            />
          )}
          <div className="grid grid-cols-2 gap-2">
            <NumberField
              label="Size"
              unit="px"
              value={close.size}
              min={24}
              max={72}
              onChange={(size) => set({ size })}
            />
            <NumberField
              label="Appears after"
              unit="s"
              value={close.delaySeconds}
              min={0}
              max={LIMITS.closeDelaySeconds}
              onChange={(delaySeconds) => set({ delaySeconds })}
            />
          </div>
          <p className="text-xs text-soft">
            At most {LIMITS.closeDelaySeconds} seconds late and 24 pixels large at least: there is always a
            way out.
          </p>
          <ColourField
            label="Colour"
            value={close.colour}
            fallback="ink"
            against={close.ground ?? 'surface'}
            onChange={(colour) => set({ colour })}
          />
          <ColourField
            label="On hover"
            value={close.hoverColour}
            fallback="ink"
            onChange={(hoverColour) => set({ hoverColour })}
          />
          <Switch
            label="Has a background"
            isOn={close.ground !== null}
            onChange={(has) => set({ ground: has ? 'surface' : null })}
          />
          {close.ground !== null && (
            <ColourField
              label="Its background"
              value={close.ground}
              fallback="surface"
              onChange={(ground) => set({ ground })}
            />
          )}
          <Switch
            label="Only on hover over the box"
            hint="Devices without a pointer always see it."
            isOn={close.onHover}
            onChange={(onHover) => set({ onHover })}
          />
        </>
      )}
      <ClosingControl />
      <p className="text-xs text-soft">
        Escape always closes it. So does any element of the page with the attribute data-velarium-close.
      </p>
    </Fold>
  );
}

/** What closing means, and whether it closes by itself: the parts of the way out that are behaviour. */
export function ClosingControl() {
  const edit = useEditMessage();
  const close = useWorkbench((state) => state.document.message.close);
  const set = (change: Partial<Close>) =>
    edit({ close: { ...close, ...change } }, `close.${Object.keys(change)[0]}`);
  return (
    <div className="grid gap-3">
      <Switch
        label="Closes by itself"
        isOn={close.afterSeconds !== null}
        onChange={(is) => set({ afterSeconds: is ? 20 : null })}
      />
      {close.afterSeconds !== null && (
        <NumberField
          label="After"
          unit="s"
          value={close.afterSeconds}
          min={2}
          max={3600}
          onChange={(afterSeconds) => set({ afterSeconds })}
        />
      )}
      <Segments
        label="Closing it means"
        value={close.means}
        onChange={(means) => set({ means })}
        options={[
          { value: 'later', label: 'Not now' },
          { value: 'no', label: 'No' },
        ]}
      />
    </div>
  );
}
