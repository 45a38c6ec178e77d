import { useQuery } from '@tanstack/react-query';
import type { Block, Letters, LookStyle, Message, Pictures, Site } from '@velarium/contract';
import { DRAWN_FILES, PLAIN_LOOK } from '@velarium/core';
import { useMemo } from 'react';
import { lettersAddress, lettersQuery, looksQuery, picturesQuery, savedBlocksQuery } from '../api/library.ts';
import { sitesQuery } from '../api/queries.ts';

/** Everything a message is drawn with beside its own document. */
export interface Design {
  /** Until all of it has come, or cannot be had, nothing is drawn: it would be drawn otherwise a moment later. */
  readonly isPending: boolean;
  /** The site it is drawn for. */
  readonly site: Site | undefined;
  readonly lookOf: (message: Pick<Message, 'look'>) => LookStyle;
  readonly pictures: Pictures;
  /** Letters of the site, with where they lie: its own, and those of its pages. */
  readonly letters: readonly (Letters & { readonly address: string })[];
  readonly savedOf: (id: string) => Block | undefined;
  /** Bytes a phone loads for a picture. */
  readonly weightOf: (picture: string) => number | undefined;
  /** Changes whenever anything of it does, so that drawings know to be made again. */
  readonly key: string;
}

export function useDesign(siteId: string): Design {
  const sitesAnswer = useQuery(sitesQuery);
  const looksAnswer = useQuery(looksQuery(siteId));
  const picturesAnswer = useQuery(picturesQuery(siteId));
  const savedAnswer = useQuery(savedBlocksQuery(siteId));
  const lettersAnswer = useQuery(lettersQuery(siteId));
  // One that failed and is asked for anew is not waited for again: what waited would go, come back, and ask once more, for ever.
  const isPending = [sitesAnswer, looksAnswer, picturesAnswer, savedAnswer, lettersAnswer].some(
    (one) => !one.isFetched,
  );
  const site = sitesAnswer.data?.find(({ id }) => id === siteId);
  const { data: looks } = looksAnswer;
  const { data: pictures } = picturesAnswer;
  const { data: saved } = savedAnswer;
  const { data: letters } = lettersAnswer;
  return useMemo(() => {
    const own = looks?.find(({ isDefault }) => isDefault)?.style ?? PLAIN_LOOK;
    return {
      isPending,
      site,
      lookOf: ({ look }) => looks?.find(({ id }) => id === look)?.style ?? own,
      pictures: { ...DRAWN_FILES, ...Object.fromEntries((pictures ?? []).map(({ id, file }) => [id, file])) },
      letters: (letters ?? []).map((one) => ({ ...one, address: lettersAddress(siteId, one.id) })),
      savedOf: (id) => saved?.find((one) => one.id === id)?.block,
      weightOf: (picture) => pictures?.find(({ id }) => id === picture)?.weight,
      key: JSON.stringify([
        looks,
        saved?.map(({ id, block }) => [id, block]),
        pictures?.length,
        letters?.map(({ id, family }) => [id, family]),
        site?.timeZone,
        site?.settings.breakpoints,
      ]),
    };
  }, [siteId, isPending, site, looks, pictures, saved, letters]);
}
