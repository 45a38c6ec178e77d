import type { ManifestCampaign, Rehearsal } from '@velarium/contract';
import { beginRehearsal } from '../rehearsal/beginning.ts';
import { playVisit } from '../rehearsal/play.ts';
import { plainSettings } from './arbitrary.ts';

interface Asked extends Partial<Pick<Rehearsal, 'pages' | 'reactions'>> {
  readonly who?: Partial<Rehearsal['visitor']>;
  readonly limits?: object;
  readonly divided?: string;
}

/** Plays visits of a new visitor, on one page unless more are asked for, to a site with plain settings. */
export const playOn =
  (page: Rehearsal['pages'][number]) =>
  (
    campaigns: readonly ManifestCampaign[],
    { pages = [page], reactions = [], who = {}, limits = {}, divided }: Asked = {},
  ) =>
    playVisit({
      manifest: {
        v: 1,
        parts: ['extras', 'rare'],
        asksEdge: false,
        timeZone: 'Europe/London',
        site: { ...plainSettings, limits: { ...plainSettings.limits, ...limits } },
        campaigns: [...campaigns],
      },
      rehearsal: {
        visitor: { ...beginRehearsal(page, '2026-11-25T20:00').visitor, ...who },
        pages,
        reactions,
      },
      origin: 'https://s.example',
      divided,
    });
