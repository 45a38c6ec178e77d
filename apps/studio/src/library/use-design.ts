import { useQuery } from '@tanstack/react-query';
import type { Block, LookStyle, Message, Pictures } from '@velarium/contract';
import { DRAWN_FILES, PLAIN_LOOK } from '@velarium/core';
import { useMemo } from 'react';
import { looksQuery, picturesQuery, savedBlocksQuery } from '../api/library.ts';

/** Everything a message is drawn with beside its own document. */
export interface Design {
  readonly lookOf: (message: Pick<Message, 'look'>) => LookStyle;
  readonly pictures: Pictures;
  readonly savedOf: (id: string) => Block | undefined;
  /** Bytes a phone loads for a picture. */
  readonly weightOf: (picture: string) => number | undefined;
  /** Changes whenever anything of it does, so that drawings know to be made again. */
  readonly key: string;
}

export function useDesign(siteId: string): Design {
  const { data: looks } = useQuery(looksQuery(siteId));
  const { data: pictures } = useQuery(picturesQuery(siteId));
  const { data: saved } = useQuery(savedBlocksQuery(siteId));
  return useMemo(() => {
    const own = looks?.find(({ isDefault }) => isDefault)?.style ?? PLAIN_LOOK;
    return {
      lookOf: ({ look }) => looks?.find(({ id }) => id === look)?.style ?? own,
      pictures: { ...DRAWN_FILES, ...Object.fromEntries((pictures ?? []).map(({ id, file }) => [id, file])) },
      savedOf: (id) => saved?.find((one) => one.id === id)?.block,
      weightOf: (picture) => pictures?.find(({ id }) => id === picture)?.weight,
      key: JSON.stringify([looks, saved?.map(({ id, block }) => [id, block]), pictures?.length]),
    };
  }, [looks, pictures, saved]);
}
