import { useQuery } from '@tanstack/react-query';
import { frozenFileQuery, versionQuery } from '../api/versions.ts';
import type { Compared } from './drawn.tsx';

/** A version with the file visitors had of it, once both are known. */
export function useVersion(campaignId: string, version: number | null): Compared | undefined {
  const { data } = useQuery(versionQuery(campaignId, version));
  const { data: file } = useQuery(
    frozenFileQuery(campaignId, data?.files.find(({ variant }) => variant === 'a')?.hash),
  );
  return data && { name: `Version ${data.version}`, document: data.document, file };
}
