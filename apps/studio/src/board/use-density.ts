import { useState } from 'react';
import { keepChoice, keptChoice } from '../ui/kept-choice.ts';

/** How much room a campaign has on the Board. */
export const DENSITIES = [
  { value: 'roomy', label: 'Roomy rows' },
  { value: 'close', label: 'Close rows' },
] as const;
export type Density = (typeof DENSITIES)[number]['value'];

const KEPT = 'velarium:board-rows';

/** The density somebody chose in this browser. */
export function useDensity() {
  const [density, setDensity] = useState<Density>(() => (keptChoice(KEPT) === 'close' ? 'close' : 'roomy'));
  return {
    density,
    choose: (next: Density) => {
      setDensity(next);
      keepChoice(KEPT, next);
    },
  };
}
