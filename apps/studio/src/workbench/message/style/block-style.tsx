import type { Styled } from '@velarium/contract';
import { memo } from 'react';
import { Switch } from '../../../ui/switch.tsx';
import { ColourField } from '../colour-field.tsx';
import { GroundField } from '../ground-field.tsx';
import { Said } from './said.tsx';
import { SCOPE_WORDS, ScopedFold } from './scope-choice.tsx';
import { StyleNumber, StyleSize } from './style-lengths.tsx';
import { StyleAlign, StyleEdges, StyleOwn } from './style-surface.tsx';
import { useStyling } from './use-styling.ts';

export interface BlockStyleProps {
  readonly styled: Styled;
  readonly kind: string;
  readonly onChange: (change: (old: Styled) => Styled, part: string) => void;
}

/** Kinds that hold words, which have letters to set. */
const HAS_LETTERS = new Set(['heading', 'text', 'button', 'count', 'countdown', 'code', 'share', 'form']);

/** The style of one block, for all devices or for one. */
export const BlockStyle = memo(function BlockStyle({ styled, kind, onChange }: BlockStyleProps) {
  const styling = useStyling(styled, {}, onChange);
  const overrides = (['tablet', 'mobile'] as const).filter(
    (device) => Object.keys(styled[device]).length > 0,
  );
  const ground = styling.said.ground ?? styling.below.ground;
  return (
    <ScopedFold
      title="Style"
      note={
        overrides.length > 0
          ? `differs on ${overrides.map((one) => SCOPE_WORDS[one].toLowerCase()).join(' and ')}`
          : undefined
      }
    >
      <Said styling={styling} of={['hidden']}>
        <Switch
          label="Shown"
          isOn={!(styling.said.hidden ?? styling.below.hidden ?? false)}
          onChange={(isShown) => styling.set('hidden', !isShown)}
        />
      </Said>
      <StyleAlign styling={styling} />
      <StyleSize styling={styling} of="width" label="Width" />
      <div className="grid grid-cols-2 gap-2">
        <StyleNumber styling={styling} of="space" label="Margin above" />
        {HAS_LETTERS.has(kind) && <StyleNumber styling={styling} of="textSize" label="Text size" />}
        <StyleNumber styling={styling} of="paddingBlock" label="Padding ↕" />
        <StyleNumber styling={styling} of="paddingInline" label="Padding ↔" />
      </div>
      {HAS_LETTERS.has(kind) && (
        <Said styling={styling} of={['colour']}>
          <ColourField
            label="Text colour"
            value={styling.said.colour}
            fallback={styling.below.colour ?? (kind === 'button' ? 'accentText' : 'ink')}
            against={ground?.kind === 'colour' ? ground.colour : kind === 'button' ? 'accent' : 'surface'}
            onChange={(colour) => styling.set('colour', colour)}
          />
        </Said>
      )}
      <Said styling={styling} of={['ground']}>
        <GroundField
          value={styling.said.ground}
          fallback={ground ?? { kind: 'colour', colour: kind === 'button' ? 'accent' : 'surface' }}
          onChange={(next) => styling.set('ground', next)}
        />
      </Said>
      <StyleEdges styling={styling} />
      <StyleOwn styling={styling} />
      {(kind === 'button' || kind === 'share') && (
        <>
          <Said styling={styling} of={['hoverColour']}>
            <ColourField
              label="Text on hover"
              value={styling.said.hoverColour}
              fallback={styling.below.hoverColour ?? 'accentText'}
              onChange={(colour) => styling.set('hoverColour', colour)}
            />
          </Said>
          <Said styling={styling} of={['hoverGround']}>
            <ColourField
              label="Background on hover"
              value={styling.said.hoverGround}
              fallback={styling.below.hoverGround ?? 'accent'}
              onChange={(colour) => styling.set('hoverGround', colour)}
            />
          </Said>
        </>
      )}
    </ScopedFold>
  );
});
