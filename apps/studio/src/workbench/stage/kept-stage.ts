import { keepChoice, keptChoice } from '../../ui/kept-choice.ts';
import type { StageView } from '../store.ts';

/** What of the stage is a way of looking, and no matter of one campaign. */
export type KeptStage = Pick<StageView, 'ground' | 'zoom'>;

const KEPT = { ground: 'velarium:stage-ground', zoom: 'velarium:stage-zoom' } as const;

/** How somebody looked at messages in this browser the last time. */
export const keptStage = (): KeptStage => ({
  ground: keptChoice(KEPT.ground) === 'plain' ? 'plain' : 'page',
  zoom: keptChoice(KEPT.zoom) === 'real' ? 'real' : 'fit',
});

/** Keeps what was chosen, and leaves alone what another tab may have chosen meanwhile. */
export function keepStage({ ground, zoom }: Partial<KeptStage>): void {
  if (ground) keepChoice(KEPT.ground, ground);
  if (zoom) keepChoice(KEPT.zoom, zoom);
}
