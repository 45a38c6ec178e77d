import type { UseQueryResult } from '@tanstack/react-query';

/**
 * What failed of the answers that a place cannot do without, and how to ask for all of it again; nothing where they are there, or may
 * still come. One that was had and could not be had anew is still had.
 */
export function failureOf(
  answers: readonly Pick<UseQueryResult, 'isLoadingError' | 'error' | 'refetch'>[],
): { readonly error: unknown; readonly onRetry: () => void } | undefined {
  const failed = answers.filter(({ isLoadingError }) => isLoadingError);
  if (failed.length === 0) return undefined;
  return {
    error: failed[0]?.error,
    onRetry: () => {
      for (const one of failed) void one.refetch();
    },
  };
}
