import type { Size, Style, Styled, StyleKey } from '@velarium/contract';
import { SHADOWS } from '@velarium/contract/values';
import { readOwnCss } from '@velarium/core';
import { AlignCenter, AlignLeft, AlignRight, Undo2 } from 'lucide-react';
import { memo, type ReactNode } from 'react';
import { IconButton } from '../../ui/button.tsx';
import { CheckedField } from '../../ui/checked-field.tsx';
import { Fold } from '../../ui/fold.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Segments } from '../../ui/segments.tsx';
import { Select } from '../../ui/select.tsx';
import { Switch } from '../../ui/switch.tsx';
import { type Scope, useWorkbench, useWorkbenchStore } from '../store.ts';
import { ColourField } from './colour-field.tsx';
import { GroundField } from './ground-field.tsx';
import { useEditMessage } from './use-message.ts';

export const SCOPE_WORDS: Readonly<Record<Scope, string>> = {
  all: 'All devices',
  tablet: 'Tablet',
  mobile: 'Phone',
};

/** Which devices what follows is set for. */
export function ScopeChoice() {
  const { setScope } = useWorkbenchStore().getState();
  const scope = useWorkbench((state) => state.scope);
  return (
    <Segments
      label="Set for"
      value={scope}
      onChange={setScope}
      options={(['all', 'tablet', 'mobile'] as const).map((value) => ({ value, label: SCOPE_WORDS[value] }))}
    />
  );
}

/** One thing of a style in the scope that is being set, with a way to drop what is said there. */
export interface Styling {
  readonly scope: Scope;
  /** What is said in this scope. */
  readonly said: Style;
  /** What holds in this scope where nothing is said in it. */
  readonly below: Style;
  set<Key extends StyleKey>(key: Key, value: NonNullable<Style[Key]>): void;
  drop(...keys: StyleKey[]): void;
}

export function useStyling(
  styled: Styled,
  defaults: Style,
  onChange: (change: (old: Styled) => Styled, part: string) => void,
): Styling {
  const scope = useWorkbench((state) => state.scope);
  return {
    scope,
    said: styled[scope],
    below: scope === 'all' ? defaults : { ...defaults, ...styled.all },
    set: (key, value) =>
      onChange((old) => ({ ...old, [scope]: { ...old[scope], [key]: value } }), `${scope}.${key}`),
    drop: (...keys) =>
      onChange(
        (old) => ({
          ...old,
          [scope]: Object.fromEntries(
            Object.entries(old[scope]).filter(([key]) => !keys.includes(key as StyleKey)),
          ),
        }),
        `${scope}.drop`,
      ),
  };
}

interface SaidProps {
  readonly styling: Styling;
  readonly of: readonly StyleKey[];
  readonly children: ReactNode;
}

/** Marks what is said in this scope, and takes it back. */
export function Said({ styling, of, children }: SaidProps) {
  const isSaid = of.some((key) => styling.said[key] !== undefined);
  return (
    <div className="relative">
      {isSaid && (
        <span className="absolute top-0 -left-5">
          <IconButton
            label={
              styling.scope === 'all'
                ? 'As the Look says again'
                : `Drop what is said for ${SCOPE_WORDS[styling.scope].toLowerCase()}`
            }
            onClick={() => styling.drop(...of)}
            className="size-5 text-sail"
          >
            <Undo2 size={12} aria-hidden />
          </IconButton>
        </span>
      )}
      {children}
    </div>
  );
}

type NumberKey =
  | 'offsetBlock'
  | 'offsetInline'
  | 'space'
  | 'paddingBlock'
  | 'paddingInline'
  | 'borderWidth'
  | 'corners'
  | 'textSize'
  | 'leastWidth'
  | 'mostWidth'
  | 'leastHeight'
  | 'mostHeight'
  | 'backdropStrength'
  | 'backdropBlur';
const MOST: Readonly<Record<NumberKey, number>> = {
  offsetBlock: 400,
  offsetInline: 400,
  space: 200,
  paddingBlock: 200,
  paddingInline: 200,
  borderWidth: 20,
  corners: 200,
  textSize: 96,
  leastWidth: 2000,
  mostWidth: 2000,
  leastHeight: 2000,
  mostHeight: 2000,
  backdropStrength: 100,
  backdropBlur: 40,
};

export function StyleNumber({
  styling,
  of,
  label,
  unit = 'px',
}: {
  styling: Styling;
  of: NumberKey;
  label: string;
  unit?: string;
}) {
  const below = styling.below[of];
  return (
    <Said styling={styling} of={[of]}>
      <NumberField
        label={label}
        unit={unit}
        value={styling.said[of]}
        // What bounds nothing is not a number worth showing.
        placeholder={below === undefined || below > MOST[of] ? '' : String(below)}
        min={of === 'textSize' ? 10 : 0}
        max={MOST[of]}
        onChange={(value) => styling.set(of, value)}
      />
    </Said>
  );
}

export function StyleSize({
  styling,
  of,
  label,
}: {
  styling: Styling;
  of: 'width' | 'height';
  label: string;
}) {
  const size: Size = styling.said[of] ?? styling.below[of] ?? { unit: 'content' };
  const begin = (unit: Size['unit']): Size =>
    unit === 'content' ? { unit } : unit === 'px' ? { unit, value: 400 } : { unit, value: 60 };
  return (
    <Said styling={styling} of={[of]}>
      <div className="grid grid-cols-[1fr_5.5rem] items-end gap-2">
        <Segments
          label={label}
          value={size.unit}
          onChange={(unit) => styling.set(of, begin(unit))}
          options={[
            { value: 'px', label: 'px' },
            { value: 'percent', label: '%' },
            { value: 'content', label: 'Content' },
          ]}
        />
        {size.unit !== 'content' && (
          <NumberField
            label={`${label} in ${size.unit === 'px' ? 'pixels' : 'per cent'}`}
            isLabelHidden
            unit={size.unit === 'px' ? 'px' : '%'}
            value={size.value}
            min={size.unit === 'px' ? 20 : 1}
            max={size.unit === 'px' ? 2000 : 100}
            step={size.unit === 'px' ? 10 : 1}
            onChange={(value) => styling.set(of, { ...size, value })}
          />
        )}
      </div>
    </Said>
  );
}

type SwitchKey = 'backdropCloses' | 'holdsPage' | 'pushesPage' | 'isSticky';

/** Something the message says for all devices, and may say otherwise for the one that is being set. */
export function PlacedSwitch({
  styling,
  of,
  isOpposite = false,
  ...words
}: {
  styling: Styling;
  of: SwitchKey;
  label: string;
  hint?: string;
  /** Worded the other way round than it is kept. */
  isOpposite?: boolean;
}) {
  const edit = useEditMessage();
  const ofAll = useWorkbench((state) => state.document.message[of]);
  const value = styling.said[of] ?? ofAll;
  return (
    <Said styling={styling} of={[of]}>
      <Switch
        {...words}
        isOn={value !== isOpposite}
        onChange={(isOn) => {
          const next = isOn !== isOpposite;
          if (styling.scope === 'all') edit({ [of]: next }, of);
          else styling.set(of, next);
        }}
      />
    </Said>
  );
}

export function StyleAlign({ styling }: { styling: Styling }) {
  return (
    <Said styling={styling} of={['align']}>
      <Segments
        label="Alignment"
        value={styling.said.align ?? styling.below.align}
        onChange={(align) => styling.set('align', align)}
        options={[
          { value: 'start', label: 'To the start', sign: <AlignLeft size={14} /> },
          { value: 'center', label: 'Centred', sign: <AlignCenter size={14} /> },
          { value: 'end', label: 'To the end', sign: <AlignRight size={14} /> },
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
        <StyleNumber styling={styling} of="borderWidth" label="Border" />
      </div>
      <Said styling={styling} of={['borderColour']}>
        <ColourField
          label="Border"
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
    <Fold
      title="Style"
      note={
        overrides.length > 0
          ? `differs on ${overrides.map((one) => SCOPE_WORDS[one].toLowerCase()).join(' and ')}`
          : undefined
      }
    >
      <ScopeChoice />
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
        <StyleNumber styling={styling} of="space" label="Room above" />
        {HAS_LETTERS.has(kind) && <StyleNumber styling={styling} of="textSize" label="Letters" />}
        <StyleNumber styling={styling} of="paddingBlock" label="Room inside ↕" />
        <StyleNumber styling={styling} of="paddingInline" label="Room inside ↔" />
      </div>
      {HAS_LETTERS.has(kind) && (
        <Said styling={styling} of={['colour']}>
          <ColourField
            label="Letters"
            value={styling.said.colour}
            fallback={styling.below.colour ?? (kind === 'button' ? 'onAccent' : 'ink')}
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
      {kind === 'button' && (
        <>
          <Said styling={styling} of={['hoverColour']}>
            <ColourField
              label="Letters under the pointer"
              value={styling.said.hoverColour}
              fallback={styling.below.hoverColour ?? 'onAccent'}
              onChange={(colour) => styling.set('hoverColour', colour)}
            />
          </Said>
          <Said styling={styling} of={['hoverGround']}>
            <ColourField
              label="Ground under the pointer"
              value={styling.said.hoverGround}
              fallback={styling.below.hoverGround ?? 'accent'}
              onChange={(colour) => styling.set('hoverGround', colour)}
            />
          </Said>
        </>
      )}
    </Fold>
  );
});
