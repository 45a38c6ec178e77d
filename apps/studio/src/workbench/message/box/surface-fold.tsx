import { ColourField } from '../colour-field.tsx';
import { GroundField } from '../ground-field.tsx';
import { Said } from '../style/said.tsx';
import { ScopedFold } from '../style/scope-choice.tsx';
import { StyleEdges, StyleOwn } from '../style/style-surface.tsx';
import { useBoxStyling } from './use-box-styling.ts';

export function SurfaceFold() {
  const styling = useBoxStyling();
  return (
    <ScopedFold title="Background and border">
      <Said styling={styling} of={['ground']}>
        <GroundField
          value={styling.said.ground}
          fallback={styling.below.ground ?? { kind: 'colour', colour: 'surface' }}
          onChange={(ground) => styling.set('ground', ground)}
        />
      </Said>
      <Said styling={styling} of={['colour']}>
        <ColourField
          label="Text colour"
          value={styling.said.colour}
          fallback={styling.below.colour ?? 'ink'}
          against="surface"
          onChange={(colour) => styling.set('colour', colour)}
        />
      </Said>
      <StyleEdges styling={styling} />
      <StyleOwn styling={styling} />
    </ScopedFold>
  );
}
